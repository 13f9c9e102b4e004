#pragma once

#include <array>

namespace poquito::advice {

struct Assessment;

/// The order of work.
enum class Station { subject, reach, depth, light, run, proof };

inline constexpr std::array stations = {Station::subject, Station::reach, Station::depth,
                                        Station::light,   Station::run,   Station::proof};
const char* station_name(Station station);

/// settled: nothing speaks against it. doubtful: a note does. open: not done yet.
enum class Status { settled, doubtful, open };
const char* status_name(Status status);

/// The first four are doubtful while a caution or stop of theirs stands, Light open without any light; Run is settled
/// when every item of the checklist is ticked; Proof by the newest entry: keep settles, redo leaves doubt.
Status status_of(const Assessment& assessment, Station station);

/// Of the whole shot: doubtful if any station is, open if any is, else settled.
Status status_of(const Assessment& assessment);

}  // namespace poquito::advice
