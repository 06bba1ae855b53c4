//! JSON with the words beside each fact: `{"code": …, "values": …, "text": …}`.

use crate::reader::Reader;
use craft::fact::Fact;
use serde_json::{Map, Value};

impl Reader<'_> {
    /// Puts its text beside every fact of an answer.
    pub fn spoken(&self, answer: &mut Value) {
        match answer {
            Value::Array(list) => list.iter_mut().for_each(|v| self.spoken(v)),
            Value::Object(map) => match fact(map) {
                Some(f) => {
                    map.insert("text".into(), Value::String(self.say(&f)));
                }
                None => map.values_mut().for_each(|v| self.spoken(v)),
            },
            _ => {}
        }
    }
}

fn fact(map: &Map<String, Value>) -> Option<Fact> {
    let shaped = map.len() == 2
        && map.get("code").is_some_and(Value::is_string)
        && map.get("values").is_some_and(Value::is_object);
    shaped
        .then(|| serde_json::from_value(Value::Object(map.clone())).ok())
        .flatten()
}

#[cfg(test)]
mod tests {
    use crate::{Measures, Reader};
    use craft::fact;
    use jiff::tz::TimeZone;

    #[test]
    fn every_fact_of_an_answer_has_its_text() {
        let mut answer = serde_json::json!({
            "grams": 250,
            "list": [{ "what": fact!("must-be-a-number", what = fact!("f-the-room")) }],
        });
        Reader::plain(Measures::METRIC, &TimeZone::UTC).spoken(&mut answer);
        assert_eq!(
            answer["list"][0]["what"]["text"],
            "The room must be a number."
        );
        assert_eq!(answer["list"][0]["what"]["code"], "must-be-a-number");
        assert_eq!(answer["grams"], 250);
    }
}
