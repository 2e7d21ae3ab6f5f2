/** Reading texts aloud with the browser's own voices: what is clumsy is heard before it is seen. */
import { useEffect, useRef, useState, useSyncExternalStore } from 'react'
import { primaryLanguage } from '../../core/words/stem.ts'

const speech = (): SpeechSynthesis | null => (typeof speechSynthesis === 'undefined' ? null : speechSynthesis)

function subscribe(listener: () => void): () => void {
  const voices = speech()
  voices?.addEventListener('voiceschanged', listener)
  return () => voices?.removeEventListener('voiceschanged', listener)
}

/** The browser's voice for a language, those on this machine first; null where it has none. */
function voiceFor(lang: string): SpeechSynthesisVoice | null {
  const wanted = primaryLanguage(lang)
  const voices = (speech()?.getVoices() ?? []).filter((v) => primaryLanguage(v.lang) === wanted)
  return (
    voices.find((v) => v.localService && v.lang === lang) ??
    voices.find((v) => v.localService) ??
    voices[0] ??
    null
  )
}

export function ReadAloud({
  texts,
  lang,
}: {
  /** Read one after the other, with a pause between. */
  texts: () => string[]
  lang: string
}) {
  const hasVoice = useSyncExternalStore(
    subscribe,
    () => voiceFor(lang) !== null,
    () => false,
  )
  const [isReading, setReading] = useState(false)
  const reading = useRef(0)
  const stop = () => {
    reading.current++
    speech()?.cancel()
    setReading(false)
  }
  // Nobody wants to hear a page that is no longer there.
  useEffect(
    () => () => {
      reading.current++
      speech()?.cancel()
    },
    [],
  )
  function read() {
    const voices = speech()
    const voice = voiceFor(lang)
    if (!voices || !voice) return
    voices.cancel()
    const turn = ++reading.current
    const all = texts().filter((text) => /\S/.test(text))
    if (all.length === 0) return
    setReading(true)
    all.forEach((text, i) => {
      const utterance = new SpeechSynthesisUtterance(text)
      utterance.voice = voice
      utterance.lang = voice.lang
      const ended = () => {
        if (turn === reading.current && i === all.length - 1) setReading(false)
      }
      utterance.onend = ended
      utterance.onerror = ended
      voices.speak(utterance)
    })
  }
  return (
    <button
      type="button"
      className="quiet text-[13px] disabled:no-underline"
      disabled={!hasVoice}
      aria-pressed={isReading}
      title={hasVoice ? undefined : 'This browser has no voice for the language of this page.'}
      onClick={isReading ? stop : read}
    >
      {isReading ? 'Stop reading' : hasVoice ? 'Read aloud' : 'Read aloud: no voice here'}
    </button>
  )
}
