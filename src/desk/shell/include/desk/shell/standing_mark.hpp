#pragma once

#include "advice/stations.hpp"
#include "desk/toolkit/drafting.hpp"

namespace poquito::desk {

/// How a station stands, as it is drawn.
inline Standing markOf(advice::Standing standing) {
    return standing == advice::Standing::settled    ? Standing::settled
           : standing == advice::Standing::doubtful ? Standing::doubtful
                                                    : Standing::open;
}

}  // namespace poquito::desk
