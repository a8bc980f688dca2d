/** What a microphone hears for a while, as the WAV file an instrument would give. */
export async function listen(seconds: number): Promise<Blob> {
  const stream = await navigator.mediaDevices.getUserMedia({
    audio: { echoCancellation: false, noiseSuppression: false, autoGainControl: false },
  })
  try {
    const recorder = new MediaRecorder(stream)
    const parts: Blob[] = []
    recorder.addEventListener('dataavailable', (event) => parts.push(event.data))
    const ended = new Promise<void>((done) => recorder.addEventListener('stop', () => done()))
    recorder.start()
    await new Promise((done) => setTimeout(done, seconds * 1000))
    recorder.stop()
    await ended
    const context = new AudioContext()
    try {
      const heard = await context.decodeAudioData(await new Blob(parts).arrayBuffer())

      return wav(heard.getChannelData(0), heard.sampleRate)
    } finally {
      await context.close()
    }
  } finally {
    stream.getTracks().forEach((track) => track.stop())
  }
}

/** Samples from −1 to 1 as a WAV file of 16 bits. */
export function wav(samples: Float32Array, rate: number): Blob {
  const view = new DataView(new ArrayBuffer(44 + samples.length * 2))
  const text = (at: number, letters: string) =>
    [...letters].forEach((letter, i) => view.setUint8(at + i, letter.charCodeAt(0)))
  text(0, 'RIFF')
  view.setUint32(4, 36 + samples.length * 2, true)
  text(8, 'WAVEfmt ')
  view.setUint32(16, 16, true)
  view.setUint16(20, 1, true)
  view.setUint16(22, 1, true)
  view.setUint32(24, rate, true)
  view.setUint32(28, rate * 2, true)
  view.setUint16(32, 2, true)
  view.setUint16(34, 16, true)
  text(36, 'data')
  view.setUint32(40, samples.length * 2, true)
  samples.forEach((sample, i) => view.setInt16(44 + i * 2, Math.round(Math.max(-1, Math.min(1, sample)) * 32767), true))

  return new Blob([view], { type: 'audio/wav' })
}
