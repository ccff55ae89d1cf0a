import { TOPICS, type Events, type Topic } from './events'

/** Milliseconds in which changes are told together. */
const TOGETHER = 400

/** Work of this process that is under way is nowhere in the database, so that it tells of itself. */
export type Told = Topic | 'jobs'

interface Follower {
  tell: (topics: Told[]) => void
  end: () => void
}

/** Tells open desks what has changed, by topics alone: they ask for what they show of it. */
export function createNews(events: Events) {
  const followers = new Set<Follower>()
  const gathered = new Set<Told>()
  let timer: NodeJS.Timeout | undefined

  function tell(): void {
    timer = undefined
    const topics = [...gathered]
    gathered.clear()
    for (const follower of followers) follower.tell(topics)
  }

  function note(topic: Told): void {
    if (!followers.size) return
    gathered.add(topic)
    timer ??= setTimeout(tell, TOGETHER).unref()
  }
  for (const topic of TOPICS) events.on(topic, () => note(topic))

  return {
    note,

    /** @returns ends it */
    follow(follower: Follower): () => void {
      followers.add(follower)
      return () => void followers.delete(follower)
    },

    /** Ends what is followed: a stop does not wait for desks that are open. */
    close(): void {
      clearTimeout(timer)
      for (const follower of followers) follower.end()
    },
  }
}
export type News = ReturnType<typeof createNews>
