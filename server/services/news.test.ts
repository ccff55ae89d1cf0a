import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { TOPICS, createEvents, passOn } from './events'
import { createNews } from './news'

beforeEach(() => void vi.useFakeTimers())
afterEach(() => void vi.useRealTimers())

function opened() {
  const events = createEvents()
  const news = createNews(events)
  const told: string[][] = []
  let ended = 0
  const follow = () => news.follow({ tell: topics => told.push(topics), end: () => ended++ })
  return { events, news, told, follow, ended: () => ended }
}

describe('news', () => {
  it('tells what comes together once, each topic once', () => {
    const { events, told, follow } = opened()
    follow()
    passOn(events, 'library a b')
    passOn(events, 'uses')
    passOn(events, 'library c')
    vi.runAllTimers()
    passOn(events, 'site')
    vi.runAllTimers()
    expect(told).toEqual([['library', 'uses'], ['site']])
  })

  it('knows every topic the database sends', () => {
    const { events, told, follow } = opened()
    follow()
    for (const topic of TOPICS) passOn(events, topic)
    vi.runAllTimers()
    expect(told).toEqual([[...TOPICS]])
  })

  it('tells each who follows, nobody who no longer does, and keeps nothing for who comes later', () => {
    const { events, told, follow } = opened()
    passOn(events, 'live')
    const [unfollow] = [follow(), follow()]
    passOn(events, 'folders')
    unfollow!()
    vi.runAllTimers()
    expect(told).toEqual([['folders']])
  })

  it('tells of work that is nowhere in the database when it says so itself', () => {
    const { news, told, follow } = opened()
    news.note('jobs')
    follow()
    news.note('jobs')
    news.note('jobs')
    vi.runAllTimers()
    expect(told).toEqual([['jobs']])
  })

  it('ends what is followed', () => {
    const { news, follow, ended } = opened()
    follow()
    follow()
    news.close()
    expect(ended()).toBe(2)
  })
})
