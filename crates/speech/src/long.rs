//! English made longer by two fifths, as other languages are: words that a page cuts show in it.

use fluent_syntax::ast::{Entry, Expression, InlineExpression, Pattern, PatternElement};
use fluent_syntax::parser::parse;
use fluent_syntax::serializer::serialize;

/// So much longer than it was: other languages need up to that much more room than English.
const MORE: f64 = 0.4;

/// The same texts, longer.
pub(crate) fn longer(text: &str) -> String {
    let mut read = parse(text.to_string()).unwrap_or_else(|(read, _)| read);
    for entry in &mut read.body {
        if let Entry::Message(m) = entry
            && !m.id.name.starts_with("names-")
            && let Some(pattern) = &mut m.value
        {
            stretch(pattern);
        }
    }
    serialize(&read)
}

fn stretch(pattern: &mut Pattern<String>) {
    for element in &mut pattern.elements {
        match element {
            PatternElement::TextElement { value } => *value = stretched(value),
            PatternElement::Placeable { expression } => within(expression),
        }
    }
}

fn within(e: &mut Expression<String>) {
    match e {
        Expression::Select { variants, .. } => {
            variants.iter_mut().for_each(|v| stretch(&mut v.value));
        }
        Expression::Inline(InlineExpression::Placeable { expression }) => within(expression),
        Expression::Inline(_) => {}
    }
}

/// Vowels twice, until it is long enough.
fn stretched(text: &str) -> String {
    let wanted = (text.chars().count() as f64 * (1.0 + MORE)).ceil() as usize;
    let mut missing = wanted - text.chars().count();
    let mut out = String::with_capacity(text.len() * 2);
    for c in text.chars() {
        out.push(c);
        if missing > 0 && "aeiouyrsn".contains(c) {
            out.push(c);
            missing -= 1;
        }
    }
    out
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn words_grow_and_values_stay() {
        let text = longer("a-code = Put { $what } on the bench\n");
        assert!(text.contains("{ $what }"), "{text}");
        assert!(text.contains("thee beennch"), "{text}");
        assert_eq!(
            longer("names-days = Mon Tue\n").trim(),
            "names-days = Mon Tue"
        );
    }
}
