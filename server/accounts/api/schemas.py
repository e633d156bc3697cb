"""Shapes of the session API."""

from rest_framework import serializers


class SessionSerializer(serializers.Serializer):
    """Who is logged in, whether the demo can be used from here, whether nobody has an account."""

    username = serializers.CharField(allow_null=True)
    demo_offered = serializers.BooleanField()
    skipper_wanted = serializers.BooleanField()


class LoginSerializer(serializers.Serializer):
    """Name and password."""

    username = serializers.CharField(max_length=150)
    password = serializers.CharField(max_length=200, style={"input_type": "password"})


class OwnPasswordSerializer(serializers.Serializer):
    """The password that the account has, typed once more."""

    password = serializers.CharField(max_length=200, style={"input_type": "password"})


class NewPasswordSerializer(OwnPasswordSerializer):
    """The password that the account has, and another."""

    new_password = serializers.CharField(max_length=200, style={"input_type": "password"})


class CrewSerializer(serializers.Serializer):
    """Somebody in the crew."""

    id = serializers.IntegerField()
    username = serializers.CharField()
