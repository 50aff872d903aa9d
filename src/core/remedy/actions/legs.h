#pragma once

#include "core/remedy/actions/action_type.h"

namespace sober {

// The few sequences of changes that all kinds are made of.

/// A file goes to the trash.
inline constexpr Leg setAsideLegs[]{{Step::note, Way::forth}, {Step::setAside, Way::forth}};
inline constexpr Leg putBackLegs[]{{Step::setAside, Way::back}, {Step::note, Way::back}};

/// A file goes to the trash and another that was made takes its place.
inline constexpr Leg replaceLegs[]{{Step::make, Way::forth},
                                   {Step::note, Way::forth},
                                   {Step::setAside, Way::forth},
                                   {Step::place, Way::forth}};
inline constexpr Leg giveBackLegs[]{
    {Step::place, Way::back}, {Step::setAside, Way::back}, {Step::note, Way::back}, {Step::make, Way::back}};

/// A file is made where nothing stood. Taken back, it goes to the trash.
inline constexpr Leg addLegs[]{{Step::make, Way::forth}, {Step::place, Way::forth}};

inline constexpr Leg moveLegs[]{{Step::move, Way::forth}};
inline constexpr Leg moveBackLegs[]{{Step::move, Way::back}};

} // namespace sober
