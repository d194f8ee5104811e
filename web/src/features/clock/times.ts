/** Minutes as they are said: "65 min", "2 h 10 min". */
export function minutesWords(min: number): string {
  if (min < 2) return `${Math.round(10 * min) / 10} min`
  if (min < 100) return `${Math.round(min)} min`
  const hours = Math.floor(min / 60)
  const rest = Math.round(min - 60 * hours)
  if (min >= 600 || rest === 0) return `${Math.round(min / 60)} h`
  return rest === 60 ? `${hours + 1} h` : `${hours} h ${rest} min`
}

/** A time on the wall so many minutes after "13:05"; minutes where that is no time. */
export function timeWords(at: string, min: number): string {
  const read = /^\s*(\d{1,2}):(\d\d)\s*$/.exec(at)
  if (!read) return min < 100 ? minutesWords(min) : `${Math.round(min / 6) / 10} h`
  const begins = 60 * Number(read[1]) + Number(read[2])
  const then = Math.round(begins + min)
  const of_day = ((then % 1440) + 1440) % 1440
  const time = `${String(Math.floor(of_day / 60)).padStart(2, '0')}:${String(of_day % 60).padStart(2, '0')}`
  const days = Math.floor(then / 1440)
  return days > 0 ? `${time} +${days}` : time
}
