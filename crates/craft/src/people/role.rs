//! Roles, and what each may do.

use crate::fact;
use crate::fact::Fact;
use serde::{Deserialize, Serialize};
use strum::{EnumString, IntoStaticStr, VariantArray};

/// What is asked of whoever comes, each holding those before it; but who reports sees nothing, and who looks reports nothing.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash)]
pub enum Right {
    /// Says what it measures: readings and weights.
    Report,
    /// Sees what the kitchen keeps.
    Look,
    /// Enters what happened: steps, readings, taps, verdicts.
    Tap,
    /// Makes and changes doughs, plans, the pantry and the library.
    Plan,
    /// Changes the kitchen itself, its people and what is given away.
    Own,
}

/// What somebody is in a kitchen.
#[derive(
    Debug,
    Clone,
    Copy,
    PartialEq,
    Eq,
    Hash,
    Serialize,
    Deserialize,
    EnumString,
    IntoStaticStr,
    VariantArray,
)]
#[serde(rename_all = "snake_case")]
#[strum(serialize_all = "snake_case")]
pub enum Role {
    /// Whose kitchen it is.
    Owner,
    /// Makes the plans.
    Planner,
    /// Works at bench and oven.
    Cook,
    /// Looks on.
    Looker,
    /// The tablet on the wall.
    Device,
    /// A helper of one batch, by a link, who taps.
    CrewTaps,
    /// A helper of one batch, by a link, who looks.
    CrewLooks,
    /// A thermometer or a scale: it says what it measures.
    ProgramReports,
    /// A program that looks.
    ProgramLooks,
    /// A program that enters what happened.
    ProgramTaps,
}

impl Role {
    /// The roles that an owner gives to people.
    pub const OF_PEOPLE: [Role; 4] = [Role::Owner, Role::Planner, Role::Cook, Role::Looker];

    /// The roles that an owner gives to programs, the least first.
    pub const OF_PROGRAMS: [Role; 3] =
        [Role::ProgramReports, Role::ProgramLooks, Role::ProgramTaps];

    /// The most that it may do.
    pub fn right(self) -> Right {
        match self {
            Role::Owner => Right::Own,
            Role::Planner => Right::Plan,
            Role::Cook | Role::Device | Role::CrewTaps | Role::ProgramTaps => Right::Tap,
            Role::Looker | Role::CrewLooks | Role::ProgramLooks => Right::Look,
            Role::ProgramReports => Right::Report,
        }
    }
    /// Whether it may do that.
    pub fn may(self, asked: Right) -> bool {
        match asked {
            // Whoever enters what happened may say what was measured; whoever looks may not.
            Right::Report => self == Role::ProgramReports || self.right() >= Right::Tap,
            _ => asked <= self.right(),
        }
    }
    /// Whether it sees the batch of its link alone.
    pub fn is_crew(self) -> bool {
        matches!(self, Role::CrewTaps | Role::CrewLooks)
    }
    /// Whether it comes by a token, to the API alone.
    pub fn is_program(self) -> bool {
        Role::OF_PROGRAMS.contains(&self)
    }
    /// Its name.
    pub fn named(self) -> Fact {
        match self {
            Role::Owner => fact!("role-owner"),
            Role::Planner => fact!("role-planner"),
            Role::Cook => fact!("role-cook"),
            Role::Looker => fact!("role-looker"),
            Role::Device => fact!("role-device"),
            Role::CrewTaps => fact!("role-crew-taps"),
            Role::CrewLooks => fact!("role-crew-looks"),
            Role::ProgramReports => fact!("role-program-reports"),
            Role::ProgramLooks => fact!("role-program-looks"),
            Role::ProgramTaps => fact!("role-program-taps"),
        }
    }
    /// What it may, in one line.
    pub fn explained(self) -> Fact {
        match self.right() {
            Right::Own => fact!("right-own"),
            Right::Plan => fact!("right-plan"),
            Right::Tap => fact!("right-tap"),
            Right::Look => fact!("right-look"),
            Right::Report => fact!("right-report"),
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::keyed::Keyed;

    #[test]
    fn each_role_may_what_it_is_for_and_no_more() {
        use Right::{Look, Own, Plan, Report, Tap};
        let all = [Look, Tap, Plan, Own];
        let may = |role: Role| all.map(|r| role.may(r));
        assert_eq!(may(Role::Owner), [true; 4]);
        assert_eq!(may(Role::Planner), [true, true, true, false]);
        assert_eq!(may(Role::Cook), [true, true, false, false]);
        assert_eq!(may(Role::Device), may(Role::Cook));
        assert_eq!(may(Role::CrewTaps), may(Role::Cook));
        assert_eq!(may(Role::Looker), [true, false, false, false]);
        assert_eq!(may(Role::CrewLooks), may(Role::Looker));
        assert_eq!(may(Role::ProgramLooks), may(Role::Looker));
        assert_eq!(may(Role::ProgramTaps), may(Role::Cook));
        assert_eq!(may(Role::ProgramReports), [false; 4]);
        // Who measures says so and sees nothing; who looks on says nothing.
        let reports = |role: &&Role| role.may(Report);
        let all: Vec<_> = Role::ALL.iter().filter(reports).copied().collect();
        let enters = |role: &&Role| role.may(Tap) || **role == Role::ProgramReports;
        assert_eq!(
            all,
            Role::ALL.iter().filter(enters).copied().collect::<Vec<_>>()
        );
        for role in Role::ALL {
            assert_eq!(Role::from_key(role.key()), Some(*role));
        }
        assert!(
            Role::OF_PEOPLE
                .iter()
                .all(|r| !r.is_crew() && !r.is_program())
        );
    }
}
