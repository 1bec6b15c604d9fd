/**
 * Photographs: kept by the server under their hash. Where nobody answers one is held on this device, over a reload too; a name stands
 * for its hash in what is said of it until both can be sent.
 */
import { useMutation } from '@tanstack/react-query';
import { del, get, set } from 'idb-keyval';
import { answered, client, freshKey, isAway, ofJob, Refused, REFUSED_HERE } from './client';

const HELD = /held-[0-9a-f]{32}/g;
/** Addresses of what this page has put into the device's store itself. */
const addresses = new Map<string, string>();

const storePicture = (job: number, picture: Blob) =>
  answered(() =>
    client.POST('/api/jobs/{job_id}/photos', {
      ...ofJob(job),
      body: picture as never,
      bodySerializer: (body: unknown) => body as Blob,
      headers: { 'Content-Type': picture.type || 'application/octet-stream' },
    }),
  );

/** Keep a photograph: its hash, or the name that stands for it until it can be sent. */
export const useAddPhoto = (job: number) =>
  useMutation({
    networkMode: 'always',
    mutationFn: async (picture: Blob): Promise<string> => {
      try {
        return (await storePicture(job, picture)).sha256;
      } catch (error) {
        if (!isAway(error)) throw error;
        const name = `held-${freshKey()}`;
        await set(name, picture);
        addresses.set(name, URL.createObjectURL(picture));
        return name;
      }
    },
  });

/** What was said, with the hashes of its photographs, which are sent first. Throws Refused. */
export async function withPictures<T>(job: number, said: T): Promise<T> {
  const held = heldIn(said);
  if (held.length === 0) return said;
  let text = JSON.stringify(said);
  for (const name of held) {
    const picture = await get<Blob>(name);
    if (picture === undefined)
      throw new Refused({ ...REFUSED_HERE, detail: 'Its photograph is no longer kept on this device.' });
    text = text.replaceAll(name, (await storePicture(job, picture)).sha256);
  }
  return JSON.parse(text) as T;
}
/** Photographs that are stored, or not wanted, are held no longer. */
export const letGo = (said: unknown): Promise<unknown> =>
  Promise.all(
    heldIn(said).map((name) => {
      URL.revokeObjectURL(addresses.get(name) ?? '');
      addresses.delete(name);
      return del(name);
    }),
  );
const heldIn = (said: unknown): readonly string[] => [...new Set(JSON.stringify(said ?? null).match(HELD) ?? [])];

export const photoUrl = (job: number, sha256: string) => addresses.get(sha256) ?? `/api/jobs/${job}/photos/${sha256}`;
/** The same, small; undefined for one that is held and was put there by an earlier page. */
export const smallPhotoUrl = (job: number, sha256: string): string | undefined =>
  sha256.startsWith('held-') ? addresses.get(sha256) : `${photoUrl(job, sha256)}?small=true`;
