export function FilesPart() {
  return null
}
