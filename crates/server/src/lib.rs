//! # derecho-server
//!
//! The `derecho` program: the HTTP interface, the command line, and the web client it
//! carries. The only crate that knows HTTP.
//!
//! What is not here: rules of the trade and computation (core), SQL (store). Nothing
//! depends on this crate but the browser tests, which drive the finished binary.

pub mod api;
pub mod app;
pub mod assets;
pub mod calendar;
pub mod cards;
pub mod cli;
pub mod english;
mod instruments;
pub mod limits;
mod openapi;
pub mod parse;
pub mod practice_bay;
pub mod raw_json;
pub mod records;
pub mod samples;
pub mod sentences;
pub mod serve;
mod trial;
