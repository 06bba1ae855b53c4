//! Words: every fact has its text, one word stands for one thing, and whole sheets say what they said.

mod complete;
mod files;
mod one_word;
mod pages;
mod sentences;
