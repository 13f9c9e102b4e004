#pragma once

#include "shoot/shoot.hpp"

#include <cstddef>
#include <cstdint>
#include <functional>
#include <optional>
#include <string>
#include <vector>

/// Every way the gear of a kit can be put together to reach a magnification. Exhaustive over what `space_text` says and
/// exact; nothing is dropped without being counted. mm, stops.
///
/// Front parts (lens, zoom position, reversed or coupled, close-up lenses) are combined with rear parts (converter,
/// tubes, bellows). A pair that cannot reach the size is dismissed by the signs of five Bernstein coefficients, the
/// rest is solved; of many hits those are kept that nothing beats, and the best by every order of the measures.
namespace poquito::search {

struct ReachWish {
    std::optional<double> field_width;  // mm across the long side of the frame; rules over magnification
    double magnification = 1;           // of the whole train
    double least_working_distance = 0;  // the subject stays in front of the rig in any case
    std::optional<double> most_loss;    // stops against the marked stop
    double f_number = 8;                // marked; what a coupled lens loses depends on it
    bool autofocus = false;             // asked for
    bool infinity = false;
    bool no_glass_in_front = false;
    std::optional<std::string> only_camera;  // id
    bool upright = false;                    // the sensor's short side is the width
    bool crop_modes = false;                 // tried as well, for a wanted field width
    bool simple = false;  // one close-up lens at most, no coupled lenses, tubes in front of a converter only
};

/// What single pieces cost in quality, by rules of thumb (common practice): plain extension keeps the lens's quality;
/// a single-element close-up lens softens the corners, above +4 badly, an achromat does not; a converter enlarges the
/// lens's faults; two coupled lenses darken the corners.
namespace optical_cost {
inline constexpr double single_element = 1;
inline constexpr double strong_single_element = 3;  // above strong_power
inline constexpr double strong_power = 4;           // dioptres
inline constexpr double converter_per_factor = 2;   // times (factor - 1)
inline constexpr double coupled = 2;
}  // namespace optical_cost

using PieceIndex = std::optional<std::uint16_t>;

/// One combination, as indices into the lists of the kit it was searched in; empty: none of that kind.
struct ReachFound {
    std::uint16_t camera = 0, lens = 0;
    PieceIndex crop_mode, zoom, reversing_ring, front_lens, front_zoom, coupling_ring, converter, bellows;
    PieceIndex closeups[2];
    std::uint64_t tubes = 0, tubes_behind = 0;  // bit by index
    float extension = 0;                        // of the bellows; single precision is a hundredth of a micrometre

    double ring = 0;
    double magnification = 0;
    double working_distance = 0;
    double loss = 0;
    double length = 0;  // camera's mount face to the front
    double optical_cost = 0;
    int pieces = 0;  // to mount on the camera, step rings not counted
    bool autofocus = false;
    bool infinity = false;
    bool best_trade = false;  // nothing else has both more working distance and less loss
};

enum class ReachMeasure { working_distance, loss, pieces, optical_cost };

/// How many combinations were not taken, by the first bound they break.
struct ReachLeftOut {
    std::size_t out_of_reach = 0;  // do not give the magnification
    std::size_t inside = 0;        // would focus inside the rig
    std::size_t too_near = 0;
    std::size_t too_dark = 0;
    std::size_t without_autofocus = 0;
    std::size_t without_infinity = 0;
    std::size_t glass_in_front = 0;
};

struct ReachResult {
    std::vector<ReachFound> found;  // by working distance, the longest first; see ReachKept for what is not in it
    std::size_t reached = 0;        // how many there are in all
    std::size_t tried = 0;
    ReachLeftOut left_out;
    bool cancelled = false;
    bool too_many = false;  // more than most_combinations: nothing was tried
};

/// A minute's work; past it the bag has to be made smaller first.
inline constexpr double most_combinations = 2e8;

/// What is remembered of the combinations that are found, so that memory does not grow with their number: all as long
/// as there are no more than `all`; past that the best `best` by every order of the four measures, so that the first
/// rows of whatever ranking are the true ones, and those that nothing else beats in both working distance and loss.
struct ReachKept {
    std::size_t all = 12000;
    std::size_t best = 300;
};

/// How many combinations there are. Doubles with every tube and close to triples where there are converters.
double combination_count(const gear::Kit& kit, const ReachWish& wish);

/// `go_on` is asked every few combinations with the share done; false ends the search. Empty: to the end.
ReachResult search_reach(const gear::Kit& kit, const ReachWish& wish, const std::function<bool(double)>& go_on = {},
                         const ReachKept& kept = {});

/// By the measures in their order: more working distance, less loss, fewer pieces, less optical cost.
void rank(std::vector<ReachFound>& found, const std::vector<ReachMeasure>& order);

/// The largest magnification the kit gives with the subject in front of the rig; empty for a kit without lens or
/// camera, and where `go_on` said to stop. Bounds and wanted size of the wish are left aside; `only_camera` counts.
std::optional<ReachFound> greatest_reach(const gear::Kit& kit, const ReachWish& wish,
                                         const std::function<bool(double)>& go_on = {});

/// The combination as a rig, with the focus set to the magnification; `now` gives rail, support and what is unknown.
shoot::Rig rig_of(const gear::Kit& kit, const ReachFound& found, const shoot::Rig& now);

/// "90 mm macro 1:1 + tube 12 mm", from the lens on, in mounting order from the camera.
std::string pieces_text(const gear::Kit& kit, const shoot::Rig& rig);

/// Why the combination costs quality, in one sentence: rules of thumb, see optical_cost.
std::string cost_text(const gear::Kit& kit, const ReachFound& found);

/// What is tried and what is not, in sentences.
std::string space_text(const gear::Kit& kit, const ReachWish& wish);

/// What the bounds left out, in one sentence; empty where they left out nothing.
std::string left_out_text(const ReachLeftOut& left_out);

/// For a note's remedy: a rig of the kit that reaches what is wanted with the shot's camera. Prefers the shot's own
/// lens, then few pieces, then extension over glass. Looks at simple rigs only; empty where none does, or where the kit
/// is too large to look through while someone types.
struct WantedReach {
    double magnification = 1;
    double working_distance = 0;  // mm, more than
};
std::optional<shoot::Rig> find_rig(const gear::Kit& kit, const shoot::Rig& now, const WantedReach& wanted);

/// Gear of a rig in mounting order from the camera to the front: names.
std::vector<std::string> mounting_order(const gear::Kit& kit, const shoot::Rig& rig);

}  // namespace poquito::search
