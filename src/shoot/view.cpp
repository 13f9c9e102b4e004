#include "shoot/view.hpp"

template class std::vector<poquito::shoot::Outlet>;
template class std::vector<poquito::shoot::Delivery>;
template class std::vector<poquito::shoot::PackedItem>;
template class std::vector<poquito::shoot::PackedIn>;
