#pragma once

#include "imaging/inspect/frame_scan.hpp"

#include <cstddef>
#include <vector>

namespace poquito::imaging {

/// The order in which frames of a stack were focused, by how alike their maps of detail are, in the direction that
/// agrees best with the order they have; that order where none is clearly better. Maps of one size.
std::vector<std::size_t> order_by_detail(const std::vector<const CellMap*>& maps);

}  // namespace poquito::imaging
