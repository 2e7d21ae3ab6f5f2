/**
 * What is worked out of an object and kept while that object is at hand: a page's things, what is wrong with them. Of the
 * last few objects alone, and in no WeakMap: pages are judged one after another, and over ten thousand of them keeping a
 * WeakMap in order cost the collector a fifth of all the time. What is asked for again later is worked out again.
 */
export function rememberLast<Of extends object, Found>(workOut: (of: Of) => Found): (of: Of) => Found {
  const objects: (Of | null)[] = [null, null, null, null]
  const answers: (Found | null)[] = [null, null, null, null]
  let oldest = 0
  return (of) => {
    const place = objects.indexOf(of)
    if (place >= 0) return answers[place]!
    const value = workOut(of)
    objects[oldest] = of
    answers[oldest] = value
    oldest = (oldest + 1) % objects.length
    return value
  }
}
