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

/// How wide the column of paper is at the right of a drawing, px.
inline constexpr int side_width = 300;

/// Fields on a paper of their own, which scrolls.
QFrame* scrollingPaper(QWidget* fields, QWidget* parent);

/// A column of two papers: what is so, and below it what is entered.
QWidget* sideOf(QFrame* facts, QWidget* fields, QWidget* parent);

/// All shots with their facts, kept alive.
struct AllShots {
    explicit AllShots(const Document& document);

    std::vector<std::shared_ptr<const advice::Assessment>> held;
    job::AllAssessed all;
};

}  // namespace poquito::desk
