#include "desk/session/chosen_light.hpp"

#include "desk/session/moc_chosen_light.moc"
