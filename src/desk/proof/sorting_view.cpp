#include "desk/proof/sorting_view.hpp"

#include "desk/session/document.hpp"
#include "desk/session/frame_pictures.hpp"
#include "desk/session/proof_controller.hpp"
#include "desk/text/to_qt.hpp"
#include "desk/toolkit/caption.hpp"
#include "desk/toolkit/drafting.hpp"
#include "desk/toolkit/still_list.hpp"
#include "desk/toolkit/theme.hpp"

#include <QAbstractListModel>
#include <QComboBox>
#include <QHBoxLayout>
#include <QKeyEvent>
#include <QLabel>
#include <QPainter>
#include <QPushButton>
#include <QSignalBlocker>
#include <QStyledItemDelegate>
#include <QToolButton>
#include <QVBoxLayout>

#include <algorithm>
#include <array>

namespace poquito::desk {
namespace {

constexpr int sequence_height = 58, thumb_width = 66, thumb_height = 46, thumbs = 3;

QString countWords(const proof::Sorted& sorted) {
    const auto count = sorted.sequence.files.size();
    return sorted.kind == proof::Kind::single ? QObject::tr("one frame")
           : sorted.kind == proof::Kind::stack
               ? QObject::tr("stack of %1").arg(count)
               : QObject::tr("burst of %1, the best is %2").arg(count).arg(sorted.best + 1);
}

QString outcomeWords(const proof::Sorted& sorted) {
    const auto& summary = sorted.summary;
    const QString why = toQt(summary.why);
    switch (summary.outcome) {
        case proof::Outcome::whole:
            return QObject::tr("whole");
        case proof::Outcome::look:
            return QObject::tr("look: %1").arg(why);
        case proof::Outcome::mendable:
            return summary.to_take > 0 ? QObject::tr("to be mended: %1, %2 to take").arg(why).arg(summary.to_take)
                                       : QObject::tr("to be mended: %1").arg(why);
        case proof::Outcome::hopeless:
            return QObject::tr("hopeless: %1").arg(why);
    }
    return {};
}

QString wordOf(ProofController::Decision decision) {
    using Decision = ProofController::Decision;
    switch (decision) {
        case Decision::kept:
            return QObject::tr("kept");
        case Decision::redo:
            return QObject::tr("to be redone");
        case Decision::set_aside:
            return QObject::tr("set aside");
        case Decision::open:
            break;
    }
    return {};
}

}  // namespace

class SortingView::Model : public QAbstractListModel {
  public:
    Model(ProofController& controller, QObject* parent) : QAbstractListModel(parent), controller_(controller) {}

    int rowCount(const QModelIndex& parent = {}) const override {
        return parent.isValid() ? 0 : static_cast<int>(shown_);
    }
    QVariant data(const QModelIndex& index, int role) const override {
        if (!index.isValid() || index.row() >= static_cast<int>(controller_.sorted().size())) return {};
        const auto& row = controller_.sorted()[static_cast<std::size_t>(index.row())];
        if (role != Qt::DisplayRole && role != Qt::AccessibleTextRole) return {};
        return tr("%1, %2").arg(countWords(row.sorted), outcomeWords(row.sorted));
    }
    void follow() {
        if (shown_ == controller_.sorted().size() && shown_ > 0)
            return Q_EMIT dataChanged(index(0), index(static_cast<int>(shown_) - 1));
        beginResetModel();
        shown_ = controller_.sorted().size();
        endResetModel();
    }

  private:
    ProofController& controller_;
    std::size_t shown_ = 0;
};

class SortingView::Delegate : public QStyledItemDelegate {
  public:
    Delegate(const Document& document, ProofController& controller, FramePictures& pictures, QObject* parent)
        : QStyledItemDelegate(parent), document_(document), controller_(controller), pictures_(pictures) {}

    QSize sizeHint(const QStyleOptionViewItem&, const QModelIndex&) const override { return {300, sequence_height}; }

    void paint(QPainter* painter, const QStyleOptionViewItem& option, const QModelIndex& index) const override {
        if (index.row() >= static_cast<int>(controller_.sorted().size())) return;
        const auto& row = controller_.sorted()[static_cast<std::size_t>(index.row())];
        const auto& sorted = row.sorted;
        const Theme& t = theme();
        painter->save();
        painter->setRenderHint(QPainter::Antialiasing);
        const QRectF card = QRectF(option.rect).adjusted(1, 1, -2, -3);
        const bool chosen = option.state & QStyle::State_Selected;
        drawCard(*painter, card, chosen ? t.linkWash : t.panel, QPen(chosen ? t.link : t.hairline, chosen ? 1.6 : 1),
                 3);
        paintThumbs(*painter, card, sorted);
        const double left = card.left() + 10 + thumbs * (thumb_width + 3) + 8, right = card.right() - 130;
        const auto line = [&](double y, const QFont& font, const QColor& colour, const QString& text) {
            painter->setFont(font);
            painter->setPen(colour);
            drawLine(*painter, QRectF(left, card.top() + y, right - left, 16), Qt::AlignLeft | Qt::AlignVCenter,
                     elided(font, text, right - left));
        };
        const auto time = toQt(sorted.sequence.exif.front().time).section(QLatin1Char('T'), 1).left(5);
        const QString what = time.isEmpty() ? countWords(sorted) : tr("%1 \u00b7 %2").arg(time, countWords(sorted));
        line(5, textFont(12, QFont::DemiBold), t.ink, what);
        const auto shot = controller_.placeOf(row.shot);
        const bool known = shot.has_value();
        line(
            20, textFont(11), known ? t.quiet : t.caution,
            tr("%1 \u00b7 %2")
                .arg(known ? toQt(document_.shoot().shots[static_cast<std::size_t>(*shot)].name) : tr("of which shot?"),
                     toQt(sorted.sequence.files.front().filename().string())));
        using proof::Outcome;
        const auto outcome = sorted.summary.outcome;
        const bool bad = outcome >= Outcome::mendable;
        const auto status = outcome == Outcome::whole ? Status::settled : Status::doubtful;
        drawStatus(*painter, {left + 6, card.top() + 43}, status);
        painter->setFont(textFont(11, bad ? QFont::DemiBold : QFont::Normal));
        painter->setPen(bad ? t.stop : statusColour(status));
        drawLine(*painter, QRectF(left + 17, card.top() + 35, right - left - 17, 16), Qt::AlignLeft | Qt::AlignVCenter,
                 elided(painter->font(), outcomeWords(sorted), right - left - 17));
        painter->setFont(textFont(12, QFont::DemiBold));
        painter->setPen(t.link);
        drawLine(*painter, QRectF(right + 6, card.top(), 116, card.height()), Qt::AlignRight | Qt::AlignVCenter,
                 wordOf(row.decision));
        painter->restore();
    }

  private:
    /// First, middle and last, or of a burst its best alone.
    void paintThumbs(QPainter& painter, const QRectF& card, const proof::Sorted& sorted) const {
        const auto& files = sorted.sequence.files;
        std::vector<std::size_t> which = {0, files.size() / 2, files.size() - 1};
        if (sorted.kind == proof::Kind::burst) which = {sorted.best};
        which.erase(std::unique(which.begin(), which.end()), which.end());
        double x = card.left() + 6;
        for (const auto i : which) {
            const QRectF frame(x, card.top() + 4, thumb_width, thumb_height);
            painter.fillRect(frame, theme().greyScale[1]);
            const QImage image = pictures_.picture(files[i], FramePictures::Kind::thumbnail);
            if (!image.isNull()) drawFilling(painter, frame, image);
            x += thumb_width + 3;
        }
    }

    const Document& document_;
    ProofController& controller_;
    FramePictures& pictures_;
};

SortingView::SortingView(Document& document, ProofController& controller, FramePictures& pictures, QWidget* parent)
    : QWidget(parent), document_(document), controller_(controller) {
    setObjectName(QStringLiteral("sortingSheet"));
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(6);
    auto* head = new QHBoxLayout;
    title_ = new QLabel(this);
    title_->setObjectName(QStringLiteral("sortingTitle"));
    title_->setFont(textFont(13, QFont::DemiBold));
    head->addWidget(title_);
    progress_ = new QLabel(this);
    progress_->setObjectName(QStringLiteral("sortingProgress"));
    progress_->setProperty("quiet", true);
    head->addWidget(progress_, 1);
    const auto link = [&](const Caption& caption) {
        auto* made = new QToolButton(this);
        nameControl(made, caption);
        made->setText(caption.label);
        made->setProperty("link", true);
        head->addWidget(made);
        return made;
    };
    stop_ = link({"stopSortingButton", tr("Stop looking"), tr("What was sorted so far stays")});
    auto* back = link({"leaveSortingButton", tr("Back to the shot"), tr("The list stays; Escape")});
    connect(stop_, &QToolButton::clicked, &controller_, &ProofController::cancel);
    connect(back, &QToolButton::clicked, this, &SortingView::left);
    column->addLayout(head);
    model_ = new Model(controller, this);
    list_ = new StillList(this);
    list_->setObjectName(QStringLiteral("sortingList"));
    list_->setAccessibleName(tr("Stacks and bursts of the folder"));
    list_->setProperty("bare", true);
    list_->setModel(model_);
    list_->setItemDelegate(new Delegate(document, controller, pictures, this));
    list_->setUniformItemSizes(true);
    list_->setVerticalScrollMode(QListView::ScrollPerPixel);
    list_->setSelectionMode(QListView::SingleSelection);
    column->addWidget(list_, 1);
    auto* row = new QHBoxLayout;
    row->setSpacing(6);
    auto* of = new QLabel(tr("Shot"), this);
    of->setProperty("quiet", true);
    row->addWidget(of);
    shot_ = new QComboBox(this);
    nameControl(shot_, {"sortingShotChoice", tr("Shot"), tr("Which shot the chosen frames are of")});
    of->setBuddy(shot_);
    row->addWidget(shot_, 1);
    open_ = captionedButton({"openSortedButton", tr("Open"), tr("Large, at its shot; Enter")}, this);
    keep_ = captionedButton({"keepSortedButton", tr("Keep"), tr("Into the shot's log; K")}, this);
    redo_ = captionedButton({"redoSortedButton", tr("Redo"), tr("Into the shot's log, with why; R")}, this);
    aside_ =
        captionedButton({"asideSortedButton", tr("Aside"),
                         tr("All of its frames into a folder \u201cset aside\u201d beside them, never deleted; A")},
                        this);
    for (auto* button : {open_, keep_, redo_, aside_}) row->addWidget(button);
    column->addLayout(row);
    connect(shot_, &QComboBox::activated, this, &SortingView::assign);
    connect(open_, &QPushButton::clicked, this, [this] { Q_EMIT openWanted(chosen_); });
    connect(list_, &QListView::doubleClicked, this, [this] { Q_EMIT openWanted(chosen_); });
    connect(keep_, &QPushButton::clicked, this, [this] { give(true); });
    connect(redo_, &QPushButton::clicked, this, [this] { give(false); });
    connect(aside_, &QPushButton::clicked, this, &SortingView::setAside);
    connect(list_->selectionModel(), &QItemSelectionModel::currentChanged, this, &SortingView::showChosen);
    connect(&controller, &ProofController::sortedChanged, this, [this] {
        if (isVisible()) refresh();
    });
    connect(&pictures, &FramePictures::arrived, list_->viewport(), qOverload<>(&QWidget::update));
    list_->installEventFilter(this);
    setFocusProxy(list_);
}

int SortingView::row() const { return list_->currentIndex().isValid() ? list_->currentIndex().row() : -1; }

const ProofController::SortedSequence* SortingView::current() const {
    const int at = row();
    return at >= 0 && at < static_cast<int>(controller_.sorted().size())
               ? &controller_.sorted()[static_cast<std::size_t>(at)]
               : nullptr;
}

void SortingView::refresh() {
    const auto& rows = controller_.sorted();
    // What was chosen stays chosen, wherever new ones come in.
    const int chosen = chosen_;  // which a list made anew forgets
    model_->follow();
    const auto at = std::ranges::find(rows, chosen, &ProofController::SortedSequence::id);
    if (!rows.empty())
        list_->setCurrentIndex(model_->index(at == rows.end() ? 0 : static_cast<int>(at - rows.begin())));
    std::size_t frames = 0;
    std::array<int, 4> counts = {};
    for (const auto& row : rows) {
        frames += row.sorted.sequence.files.size();
        ++counts[static_cast<std::size_t>(row.sorted.summary.outcome)];
    }
    title_->setText(tr("%1 in %2")
                        .arg(toQt(text::count_text(static_cast<double>(rows.size()), "sequence", "sequences")),
                             controller_.sortedFrom()));
    const auto [done, all] = controller_.sortProgress();
    progress_->setText(controller_.isSorting() ? tr("%1 of %2 frames looked at").arg(done).arg(all)
                                               : tr("%1 frames: %2 whole, %3 to look at, %4 to be mended, %5 hopeless")
                                                     .arg(frames)
                                                     .arg(counts[0])
                                                     .arg(counts[1])
                                                     .arg(counts[2])
                                                     .arg(counts[3]));
    stop_->setVisible(controller_.isSorting());
    const QSignalBlocker quiet(shot_);
    shot_->clear();
    shot_->addItem(tr("of which shot?"));
    for (const auto& shot : document_.shoot().shots) shot_->addItem(toQt(shot.name), toQt(shot.id));
    showChosen();
}

void SortingView::showChosen() {
    const auto* sequence = current();
    chosen_ = sequence ? sequence->id : 0;
    for (auto* button : {open_, keep_, redo_, aside_}) button->setEnabled(sequence != nullptr);
    shot_->setEnabled(sequence != nullptr);
    if (!sequence) return;
    const auto& shot = sequence->shot;
    const QSignalBlocker quiet(shot_);
    shot_->setCurrentIndex(shot.empty() ? 0 : std::max(0, shot_->findData(toQt(shot))));
    for (auto* button : {open_, keep_, redo_}) button->setEnabled(controller_.placeOf(shot).has_value());
}

void SortingView::assign(int choice) { controller_.assign(chosen_, shot_->itemData(choice).toString().toStdString()); }

void SortingView::give(bool keep) {
    if (!keep_->isEnabled()) return;
    const int at = row();
    Q_EMIT verdictGiven(chosen_, keep);
    if (at + 1 < model_->rowCount()) list_->setCurrentIndex(model_->index(at + 1));
}

void SortingView::setAside() {
    const int at = row();
    if (!controller_.setSequenceAside(chosen_)) return;
    if (at + 1 < model_->rowCount()) list_->setCurrentIndex(model_->index(at + 1));
}

bool SortingView::take(const QKeyEvent& event) {
    if (event.modifiers() & (Qt::ControlModifier | Qt::AltModifier)) return false;
    switch (event.key()) {
        case Qt::Key_K:
        case Qt::Key_R:
            give(event.key() == Qt::Key_K);
            return true;
        case Qt::Key_A:
            if (event.modifiers() & Qt::ShiftModifier)
                controller_.bringBack();
            else
                setAside();
            return true;
        case Qt::Key_Escape:
            Q_EMIT left();
            return true;
        case Qt::Key_Return:
        case Qt::Key_Enter:
            if (open_->isEnabled()) Q_EMIT openWanted(chosen_);
            return true;
        default:
            return false;
    }
}

/// Before the list, which would look for rows that begin with these letters.
bool SortingView::eventFilter(QObject* watched, QEvent* event) {
    if (watched == list_ && event->type() == QEvent::KeyPress && take(*static_cast<QKeyEvent*>(event))) return true;
    return QWidget::eventFilter(watched, event);
}

void SortingView::keyPressEvent(QKeyEvent* event) {
    if (!take(*event)) QWidget::keyPressEvent(event);
}

}  // namespace poquito::desk

#include "desk/proof/moc_sorting_view.moc"
