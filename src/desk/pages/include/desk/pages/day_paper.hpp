#pragma once

#include "job/assessed.hpp"

#include <QFrame>
#include <QScrollArea>

#include <memory>
#include <vector>

namespace poquito::advice {
struct Assessment;
}

namespace poquito::desk {

class Document;

/// A sheet of paper on the table.
QFrame* paperOn(QWidget* parent);

/// What is taller than the window scrolls; its ground stays that of the paper below.
QScrollArea* scrollingOn(QWidget* inner, QWidget* parent);

/// All shots with their facts, kept alive.
struct AllShots {
    explicit AllShots(const Document& document);

    std::vector<std::shared_ptr<const advice::Assessment>> held;
    job::AllAssessed all;
};

}  // namespace poquito::desk
