declare module 'fontkit' {
  export function openSync(path: string): unknown
}
