#pragma once

#include "job/assessed.hpp"
#include "shoot/shoot.hpp"

#include <string>
#include <vector>

/// What has to come along for all shots of a shoot, and home again.
namespace poquito::job {

enum class PackKind {
    gear,    // of the kit, that a shot uses
    power,   // charged cells and packs, cards
    thing,   // what is photographed
    supply,  // what its care, the ground and the work call for (common practice)
    own      // the photographer's own words
};
const char* pack_kind_name(PackKind kind);

struct PackLine {
    std::string id;  // stays the same while the shoot changes: by it a line is ticked
    PackKind kind = PackKind::gear;
    std::string name;
    int count = 1;
    std::string why;        // "for 5 shots", "1.4 charges and one to spare"
    std::string container;  // the case it goes in
    bool going = false;
    bool home = false;
    bool stays = false;  // is used up, or stays where it is: not looked for on the way home
};
/// By kind, gear as the kit has it.
std::vector<PackLine> packing_list(const shoot::Shoot& shoot, const AllAssessed& shots);

/// Cases that are named, and the empty one; in the order of their first lines.
std::vector<std::string> cases_of(const std::vector<PackLine>& lines);

void tick(shoot::Packing& packing, const std::string& line, bool home, bool on);
void put_into(shoot::Packing& packing, const PackLine& line, const std::string& container);
/// A line of one's own; nothing where there is no text.
void add_own(shoot::Packing& packing, const std::string& text, const std::string& container);
void remove_own(shoot::Packing& packing, const std::string& line);

}  // namespace poquito::job
