import { useMutation } from '@tanstack/react-query'
import { asking, useKept } from '../../api/ask'
import { answer, api, ProblemError } from '../../api/client'
import { FORMULA } from '../bench/queries'
import type { ComponentSummary, FormulaDocument } from '../../api/client'

export function useComponents() {
  return useKept(asking('get', '/api/components'))
}

/** Whether a component answers what was typed: every word in its name, family, job or tags. */
export function matches(each: ComponentSummary, typed: string): boolean {
  const text = `${each.name} ${each.family_word} ${each.job} ${each.tags.join(' ')}`.toLowerCase()
  return typed
    .toLowerCase()
    .split(/\s+/)
    .every((word) => text.includes(word))
}

interface Place {
  id: string
  tags: string[]
  archived: boolean
}

/** Tags a component or puts it away; no revision comes of it. */
export function usePlace() {
  return useMutation({
    mutationFn: ({ id, tags, archived }: Place) =>
      answer(api.PUT('/api/components/{id}/place', { params: { path: { id } }, body: { tags, archived } })),
  })
}

export function readDocument(id: string): Promise<FormulaDocument> {
  return answer(api.GET('/api/components/{id}', { params: { path: { id } } })).then(
    (component) => component.document,
  )
}

/** A version of a component; none where there never was one. */
export async function readVersion(id: string, version: string): Promise<FormulaDocument | null> {
  const path = { id, revision: Number(version) }
  try {
    const own = await answer(api.GET('/api/components/{id}/revisions/{revision}', { params: { path } }))
    return own.document
  } catch (error) {
    if (error instanceof ProblemError && error.problem.status === 404) return null
    throw error
  }
}

/** Saves a document as a new component. */
export function useCreate() {
  return useMutation({
    mutationFn: (document: FormulaDocument) => FORMULA.create(document),
  })
}

const LATELY = 'bright-spoon.lately'
const HOW_MANY = 6

/** Keys of the formulas opened last on this device, the newest first. */
export function lately(): string[] {
  try {
    const kept: unknown = JSON.parse(localStorage.getItem(LATELY) ?? '[]')
    return Array.isArray(kept) ? kept.filter((id): id is string => typeof id === 'string') : []
  } catch {
    return []
  }
}

export function rememberOpened(id: string) {
  try {
    localStorage.setItem(
      LATELY,
      JSON.stringify([id, ...lately().filter((other) => other !== id)].slice(0, HOW_MANY)),
    )
  } catch {
    // Nothing hangs on it.
  }
}
