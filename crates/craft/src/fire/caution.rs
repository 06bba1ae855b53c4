//! What can hurt at a fire, said where it applies. Planning figures never stand above local rules and the maker's manual.
//!
//! Source: bake model, section 15; craft notes, section 9.

use super::oven::{Fuel, Oven, OvenKind};
use crate::fact;
use crate::fact::Fact;
use crate::units::Celsius;

/// Baking paper scorches above it.
const SCORCHES: Celsius = Celsius(220.0);

/// One caution.
#[derive(Debug, Clone, PartialEq)]
pub struct Caution {
    /// Life is at stake: it is acknowledged once per run.
    pub grave: bool,
    /// What can hurt somebody.
    pub head: Fact,
    /// What to do about it.
    pub say: Fact,
}

fn grave(head: Fact, say: Fact) -> Caution {
    Caution {
        grave: true,
        head,
        say,
    }
}
fn usual(head: Fact, say: Fact) -> Caution {
    Caution {
        grave: false,
        head,
        say,
    }
}

fn monoxide() -> Caution {
    grave(fact!("caution-monoxide"), fact!("caution-monoxide-say"))
}

/// What decides in the end.
pub fn manual() -> Fact {
    fact!("manual-decides")
}

/// The cautions for an oven; `pan` where the piece lies in an oiled one, `grill` where it glows.
pub fn cautions(oven: &Oven, pan: bool, grill: bool) -> Vec<Caution> {
    let mut out = Vec::new();
    match oven.fuel {
        Fuel::Wood => out.extend([
            monoxide(),
            grave(fact!("caution-embers"), fact!("caution-embers-say")),
        ]),
        Fuel::Gas => out.extend([
            monoxide(),
            grave(fact!("caution-gas"), fact!("caution-gas-say")),
        ]),
        Fuel::Electric => {}
    }
    out.push(usual(fact!("caution-burns"), fact!("caution-burns-say")));
    if grill {
        out.push(usual(
            fact!("caution-grill"),
            fact!("caution-grill-say", c = SCORCHES),
        ));
    }
    if pan {
        out.push(usual(fact!("caution-oil"), fact!("caution-oil-say")));
    }
    if oven.floor.is_metal() && oven.kind == OvenKind::Home {
        out.push(usual(fact!("caution-steel"), fact!("caution-steel-say")));
    } else if !oven.floor.is_metal() {
        out.push(usual(fact!("caution-shock"), fact!("caution-shock-say")));
    }
    out
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::fire::oven;

    #[test]
    fn fire_and_gas_are_grave_and_current_is_not() {
        for o in oven::all() {
            let grave = cautions(o, false, false).iter().any(|c| c.grave);
            assert_eq!(grave, o.fuel != Fuel::Electric, "{}", o.key);
        }
        let home = oven::all().iter().find(|o| o.key == "home_steel").unwrap();
        assert!(cautions(home, true, true).len() > cautions(home, false, false).len());
    }
}
