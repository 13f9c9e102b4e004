#pragma once

#include <string>
#include <vector>

namespace poquito::desk {

/// A place of the list that ships. Degrees north and east; a zone of the IANA's list. From memory, to a hundredth.
struct Town {
    std::string name;
    double latitude = 0;
    double longitude = 0;
    std::string zone;
};
const std::vector<Town>& towns();
const Town* findTown(const std::string& name);  // whatever its capitals; null: there is none

}  // namespace poquito::desk
