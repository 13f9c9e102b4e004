#include "shoot/limits.hpp"

#include <algorithm>

namespace poquito::shoot {

Limits overlaid(const Limits& nearer, const Limits& farther) {
    Limits both = nearer;
    const auto fill = [&](auto Limits::*member) {
        if (!(both.*member)) both.*member = farther.*member;
    };
    for (const auto member :
         {&Limits::iso, &Limits::shutter_by_hand, &Limits::f_number, &Limits::frames, &Limits::minutes})
        fill(member);
    if (both.give_up.empty()) both.give_up = farther.give_up;
    return both;
}

std::vector<Loss> giving_up(const Limits& limits) {
    std::vector<Loss> order = limits.give_up;
    for (const Loss loss : {Loss::background, Loss::time, Loss::iso, Loss::depth, Loss::motion})
        if (std::ranges::count(order, loss) == 0) order.push_back(loss);
    return order;
}

Limits usual_limits() {
    return {.iso = 1600, .shutter_by_hand = 1.0 / 160, .f_number = 22, .frames = 200, .minutes = 30};
}

}  // namespace poquito::shoot

template class std::vector<poquito::shoot::Loss>;
