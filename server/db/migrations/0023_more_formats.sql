-- Kinds of files that are understood now and were not before: what came in is read once more.
UPDATE "blobs" SET "reading" = 'waiting', "reading_error" = NULL WHERE "sha256" IN (
  SELECT "sha256" FROM "editions" WHERE "media_type" ~ '^image/(bmp|hei[cf])$|^application/(msword|rtf|vnd\.ms-excel|vnd\.ms-powerpoint|x-tar|(x-)?gzip|x-7z-compressed|vnd\.rar|x-bzip2?|x-xz)$|^text/rtf$'
);
