-- What is kept are compressed pictures: trying to compress them again takes time and gains nothing.
ALTER TABLE "blob_chunks" ALTER COLUMN "data" SET STORAGE EXTERNAL;
