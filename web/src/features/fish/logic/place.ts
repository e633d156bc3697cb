// Where this device is, asked once.
export interface Here {
  latitude_deg: number
  longitude_deg: number
}

/** Rejects where the device does not say, or not in time. */
export function hereOnce(): Promise<Here> {
  return new Promise((resolve, reject) => {
    if (!navigator.geolocation) return reject(new Error('This device does not say where it is.'))
    navigator.geolocation.getCurrentPosition(
      ({ coords }) => resolve({ latitude_deg: coords.latitude, longitude_deg: coords.longitude }),
      reject,
      { enableHighAccuracy: true, timeout: 5000, maximumAge: 10_000 },
    )
  })
}
