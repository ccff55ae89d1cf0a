-- Scripts without spaces between words are found by letters in twos: what holds such letters is read again.
UPDATE "blobs" SET "reading" = 'waiting' WHERE "sha256" IN (SELECT "sha256" FROM "texts" WHERE "body" ~ '[\u0e00-\u0eff\u1000-\u109f\u1780-\u17ff\u3040-\u30ff\u3400-\u9fff]');
