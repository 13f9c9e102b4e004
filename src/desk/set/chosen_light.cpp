#include "desk/set/chosen_light.hpp"

#include "set/moc_chosen_light.moc"
