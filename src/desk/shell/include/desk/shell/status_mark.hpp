#pragma once

#include "advice/stations.hpp"
#include "desk/toolkit/drafting.hpp"

namespace poquito::desk {

/// How a station stands, as it is drawn.
inline Status markOf(advice::Status status) {
    return status == advice::Status::settled    ? Status::settled
           : status == advice::Status::doubtful ? Status::doubtful
                                                : Status::open;
}

}  // namespace poquito::desk
