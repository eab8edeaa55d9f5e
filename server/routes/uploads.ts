import express from "express";

/** The most that a request may send, in bytes. */
export const LIMITS = {
  file: 100 * 1024 * 1024,
  archive: 1024 * 1024 * 1024,
  picture: 25 * 1024 * 1024,
  typed: 100 * 1024,
  json: 25 * 1024 * 1024,
};

/** Reads the body of a request as bytes, whatever type it says. */
export const upload = (limit: number) => express.raw({ type: () => true, limit });
