#include "desk/day/packing_tab.hpp"

#include "desk/day/packing_board.hpp"
#include "desk/pages/day_paper.hpp"
#include "desk/text/to_qt.hpp"
#include "desk/toolkit/sentence.hpp"
#include "desk/toolkit/theme.hpp"
#include "text/text.hpp"

#include <QButtonGroup>
#include <QComboBox>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QSignalBlocker>
#include <QToolButton>
#include <QVBoxLayout>

#include <algorithm>

namespace poquito::desk {

using shoot::Shoot;

PackingTab::PackingTab(Document& document, QWidget* parent) : StationPage(document, parent) {
    auto* page = paperOn(this);
    auto* column = new QVBoxLayout(page);
    column->setContentsMargins(14, 10, 14, 10);
    column->setSpacing(8);
    auto* bar = new QHBoxLayout;
    auto* which = new QButtonGroup(this);
    const auto chip = [&](const Caption& caption) {
        auto* made = new QToolButton(page);
        nameControl(made, caption);
        made->setText(caption.label);
        made->setCheckable(true);
        made->setProperty("chip", true);
        which->addButton(made);
        bar->addWidget(made);
        return made;
    };
    going_ = chip({"packGoingButton", tr("Going"), tr("What is in its case")});
    home_ = chip({"packHomeButton", tr("Coming home"), tr("What is back in it, of what went")});
    going_->setChecked(true);
    connect(which, &QButtonGroup::buttonClicked, this, &PackingTab::refresh);
    bar->addSpacing(6);
    verdict_ = new Sentence(2, page);
    verdict_->setObjectName(QStringLiteral("packVerdict"));
    bar->addWidget(verdict_, 1);
    auto* again =
        captionedButton({"packAgainButton", tr("Untick all"), tr("For the next day; it can be undone")}, page);
    connect(again, &QPushButton::clicked, this, [this] {
        this->document().edit({tr("Untick the packing list")}, [](Shoot& shoot) {
            shoot.packing.going.clear();
            shoot.packing.home.clear();
        });
    });
    bar->addWidget(again);
    column->addLayout(bar);
    board_ = new PackingBoard(page);
    column->addWidget(scrollingOn(board_, page), 1);
    auto* foot = new QHBoxLayout;
    own_ = new QLineEdit(page);
    nameControl(own_, {"packOwnField", tr("One more thing"), tr("A prop, a cloth, a spare; Enter adds it")});
    own_->setPlaceholderText(tr("one more thing"));
    connect(own_, &QLineEdit::returnPressed, this, &PackingTab::addOwn);
    foot->addWidget(own_, 1);
    auto* add = captionedButton({"packAddButton", tr("Add"), tr("To the list, in the case beside it")}, page);
    connect(add, &QPushButton::clicked, this, &PackingTab::addOwn);
    foot->addWidget(add);
    foot->addSpacing(12);
    auto* label = new QLabel(tr("Case"), page);
    label->setProperty("quiet", true);
    foot->addWidget(label);
    case_ = new QComboBox(page);
    nameControl(case_, {"packCaseChoice", tr("Case"), tr("A bag or box; type a new name")});
    case_->setEditable(true);
    case_->setMinimumWidth(150);
    foot->addWidget(case_);
    put_ = captionedButton({"packPutButton", tr("Put the marked one in"), tr("Or drag it onto the case's card")}, page);
    connect(put_, &QPushButton::clicked, this, [this] { putMarked(case_->currentText().trimmed().toStdString()); });
    foot->addWidget(put_);
    forget_ =
        captionedButton({"packForgetButton", tr("Remove"), tr("The marked line, where it is one of your own")}, page);
    connect(forget_, &QPushButton::clicked, this, [this] {
        const auto id = board_->marked();
        this->document().edit({tr("Remove from the packing list")},
                              [&](Shoot& shoot) { job::remove_own(shoot.packing, id); });
    });
    foot->addWidget(forget_);
    column->addLayout(foot);
    addDrawing(page, 1);
    connect(board_, &PackingBoard::ticked, this, [this](const std::string& line, bool on) {
        const bool home = home_->isChecked();
        this->document().edit({on ? tr("Tick") : tr("Untick")},
                              [&](Shoot& shoot) { job::tick(shoot.packing, line, home, on); });
    });
    connect(board_, &PackingBoard::moved, this,
            [this](const std::string&, const std::string& container) { putMarked(container); });
    connect(board_, &PackingBoard::markedChanged, this, &PackingTab::refresh);
}

const job::PackLine* PackingTab::marked() const {
    const auto found = std::ranges::find(lines_, board_->marked(), &job::PackLine::id);
    return found == lines_.end() ? nullptr : &*found;
}

void PackingTab::addOwn() {
    const auto text = own_->text().trimmed();
    if (text.isEmpty()) return;
    const auto container = case_->currentText().trimmed().toStdString();
    own_->clear();
    document().edit({tr("Add to the packing list")},
                    [&](Shoot& shoot) { job::add_own(shoot.packing, text.toStdString(), container); });
}

void PackingTab::putMarked(const std::string& container) {
    const auto* line = marked();
    if (!line || line->container == container) return;
    const auto moved = *line;
    document().edit({tr("Put into a case")}, [&](Shoot& shoot) { job::put_into(shoot.packing, moved, container); });
}

void PackingTab::showShot(const Shot&, const plan::Report&) {
    const AllShots facts(document());
    lines_ = job::packing_list(document().shoot(), facts.all);
    const bool home = home_->isChecked();
    int asked = 0, in = 0;
    QStringList open;
    for (const auto& line : lines_) {
        if (home && (!line.going || line.stays)) continue;
        ++asked;
        const bool ticked = home ? line.home : line.going;
        in += ticked;
        if (!ticked) open << toQt(line.name);
    }
    constexpr qsizetype some = 3;
    const auto rest = open.size() - some;
    const auto next = rest > 1 ? tr("%1, and %2 more").arg(open.first(some).join(QStringLiteral(", "))).arg(rest)
                               : open.join(QStringLiteral(", "));
    verdict_->setText(home && asked == 0 ? tr("Nothing was ticked going, so nothing is looked for.")
                      : open.isEmpty()
                          ? (home ? tr("All %1 are back.") : tr("All %1 are in.")).arg(asked)
                          : (home ? tr("%1 of %2 are back; not yet: %3.") : tr("%1 of %2 are in; not yet: %3."))
                                .arg(in)
                                .arg(asked)
                                .arg(next));
    {
        const QSignalBlocker quiet(case_);
        const auto text = case_->currentText();
        case_->clear();
        for (const auto& one : job::cases_of(lines_))
            if (!one.empty()) case_->addItem(toQt(one));
        case_->setCurrentText(text);
    }
    const auto* line = marked();
    put_->setEnabled(line != nullptr);
    forget_->setEnabled(line && line->kind == job::PackKind::own);
    board_->setLines(lines_, home, board_->marked());
}

}  // namespace poquito::desk

#include "desk/day/moc_packing_tab.moc"
