"""Shapes of the session API."""

from rest_framework import serializers


class SessionSerializer(serializers.Serializer):
    """Who is logged in, and whether the demo account can be used from this browser."""

    username = serializers.CharField(allow_null=True)
    demo_offered = serializers.BooleanField()


class LoginSerializer(serializers.Serializer):
    """Name and password."""

    username = serializers.CharField(max_length=150)
    password = serializers.CharField(max_length=200, style={"input_type": "password"})
