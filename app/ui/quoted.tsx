/** A sentence that quotes: each quotation reads its own way, and leaves the words around it where they stand. */
export function Quoted({ text }: { text: string }) {
  return text.split(/(“[^”]*”)/).map((part, i) => (i % 2 === 1 ? <bdi key={i}>{part}</bdi> : part))
}
