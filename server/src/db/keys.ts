import type { DataSource } from 'typeorm'
import { SigningKeys } from './entities.ts'

/** A pair of keys (Ed25519): the public one as 32 bytes in base64, the other as PKCS 8 in base64. It never leaves the server. */
export interface SigningKey {
  readonly public: string
  readonly private: string
}

/** The keys of one firm. They are in no backup: whoever has a copy of the data cannot sign in the firm's name. */
export class KeyStore {
  constructor(
    readonly source: DataSource,
    readonly firmId: string,
  ) {}

  /** The pair by which the firm signs packs; made by `make` when it is asked for first, once though two ask at the same time. */
  async signing(make: () => SigningKey): Promise<SigningKey> {
    const rows = this.source.getRepository(SigningKeys)
    const there = await rows.findOneBy({ firmId: this.firmId })
    if (there) return { public: there.publicKey, private: there.privateKey }
    const made = make()
    await rows
      .createQueryBuilder()
      .insert()
      .values({
        firmId: this.firmId,
        publicKey: made.public,
        privateKey: made.private,
        madeAt: new Date(),
      })
      .orIgnore()
      .execute()
    const kept = await rows.findOneByOrFail({ firmId: this.firmId })
    return { public: kept.publicKey, private: kept.privateKey }
  }
}
