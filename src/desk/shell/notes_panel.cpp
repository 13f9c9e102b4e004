#include "desk/shell/notes_panel.hpp"

#include "advice/trouble.hpp"
#include "desk/base/caption.hpp"
#include "desk/base/drafting.hpp"
#include "desk/base/theme.hpp"
#include "desk/shell/document.hpp"

#include <QAbstractButton>
#include <QPainter>
#include <QPushButton>
#include <QResizeEvent>

#include <algorithm>
#include <utility>

namespace poquito::desk {

/// One note on its wash. The mark's shape says the level: a square stop, a triangle, a dot; a cross for safety.
class NoteCard : public QWidget {
  public:
    explicit NoteCard(QWidget* parent) : QWidget(parent), remedy_(new QPushButton(this)) {
        remedy_->setProperty("link", true);
    }

    /// Lays itself out by hand: wrapping labels in nested layouts take longer than a frame may.
    int layOut(int width) {
        if (textArea_.width() != width - 40) {
            textArea_ = QRect(30, 7, width - 40, 0);
            textArea_.setHeight(QFontMetrics(textFont())
                                    .boundingRect(textArea_.adjusted(0, 0, 0, 10000), Qt::TextWordWrap, text_)
                                    .height());
        }
        int height = textArea_.bottom() + 8;
        if (remedy_->isHidden()) return height;
        const QSize wanted = remedy_->sizeHint();
        remedy_->setGeometry(29, textArea_.bottom() + 2, std::min(wanted.width(), width - 36), wanted.height());
        height = remedy_->geometry().bottom() + 5;
        return height;
    }

    QPushButton* remedy() const { return remedy_; }
    const std::string& code() const { return code_; }

    /// `answered`: whether the remedy was looked for; until then the button of the same note of before stays as it is.
    void show(const advice::Note& note, bool answered) {
        const bool same = code_ == note.code;
        code_ = note.code;
        level_ = note.level;
        safety_ = note.concern == advice::Concern::safety;
        const auto code = QString::fromStdString(note.code);
        setObjectName(QStringLiteral("note-") + code);
        if (const auto text = QString::fromStdString(note.text); text != text_) {
            text_ = text;
            textArea_ = {};
            setAccessibleDescription(text_);
            update();
        }
        if (answered || !same) remedy_->setVisible(note.remedy != nullptr);
        if (note.remedy) {
            const auto label = QString::fromStdString(note.remedy->label);
            if (remedy_->text() != label) remedy_->setText(label);
            remedy_->setObjectName(QStringLiteral("remedy-") + code);
            remedy_->setAccessibleName(remedy_->text());
            remedy_->setToolTip(tr("Apply this change to the plan; it can be undone"));
        } else if (answered || !same) {
            remedy_->setObjectName({});
        }
        const char* levels[] = {QT_TR_NOOP("Information"), QT_TR_NOOP("Caution"), QT_TR_NOOP("Stop")};
        const auto name = safety_ ? tr("Safety") : tr(levels[static_cast<int>(level_)]);
        if (name == accessibleName()) return;
        setAccessibleName(name);
        setToolTip(name);
        update();
    }

  protected:
    void paintEvent(QPaintEvent*) override {
        const Theme& t = theme();
        const bool stop = level_ == advice::Level::stop, info = level_ == advice::Level::info;
        QPainter painter(this);
        painter.setRenderHint(QPainter::Antialiasing);
        painter.setPen(Qt::NoPen);
        painter.setBrush(stop ? t.stopWash : info ? t.linkWash : t.cautionWash);
        painter.drawRoundedRect(QRectF(rect()).adjusted(0, 0, 0, -1), 3, 3);
        painter.setFont(textFont());
        painter.setPen(t.ink);
        painter.drawText(textArea_, Qt::TextWordWrap, text_);
        painter.setPen(Qt::NoPen);
        const QPointF mark(15, 16);
        if (safety_) {
            painter.setPen(QPen(t.caution, 2.4));
            painter.drawLine(mark - QPointF(5, 0), mark + QPointF(5, 0));
            painter.drawLine(mark - QPointF(0, 5), mark + QPointF(0, 5));
        } else if (stop) {
            painter.setBrush(t.stop);
            painter.drawRect(QRectF(mark - QPointF(4.5, 4.5), QSizeF(9, 9)));
        } else if (info) {
            painter.setBrush(t.link);
            painter.drawEllipse(mark, 3, 3);
        } else {
            drawStanding(painter, mark, advice::Standing::doubtful);
        }
    }

  private:
    std::string code_;
    QString text_;
    QRect textArea_;
    QPushButton* remedy_;
    advice::Level level_ = advice::Level::info;
    bool safety_ = false;
};

/// What is usual here, on a line that unfolds.
class FoldedLine : public QAbstractButton {
  public:
    explicit FoldedLine(QWidget* parent) : QAbstractButton(parent) {
        setObjectName(QStringLiteral("usualNotes"));
        setFont(textFont(12));
        setCursor(Qt::PointingHandCursor);
        setFocusPolicy(Qt::StrongFocus);
    }

  protected:
    void paintEvent(QPaintEvent*) override {
        QPainter painter(this);
        painter.setFont(font());
        painter.setPen(hasFocus() || underMouse() ? theme().link : theme().quiet);
        painter.drawText(rect().adjusted(8, 4, -8, -4), Qt::TextWordWrap, text());
    }
};

NotesPanel::NotesPanel(Document& document, QWidget* parent)
    : QScrollArea(parent),
      document_(document),
      sheet_(new QWidget),
      right_(new QPushButton(tr("Put it right"), sheet_)),
      usual_(new FoldedLine(sheet_)) {
    setObjectName(QStringLiteral("notesPanel"));
    setAccessibleName(tr("Notes"));
    setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    setFrameShape(QFrame::NoFrame);
    setFocusPolicy(Qt::NoFocus);
    setWidget(sheet_);
    viewport()->setAutoFillBackground(false);
    sheet_->setAutoFillBackground(false);
    nameControl(right_, {"putRightButton", tr("Put it right"),
                         tr("Applies remedy after remedy until none is left; one step back undoes it")});
    right_->setProperty("link", true);
    connect(right_, &QPushButton::clicked, this, [this] {
        const auto righted = advice::put_right(document_.kit(), *document_.shot(), document_.shoot().limits);
        document_.editShot({tr("Put it right")}, [&](shoot::Shot& shot) { shot = righted; });
    });
    connect(usual_, &QAbstractButton::clicked, this, [this] {
        unfolded_ = !unfolded_;
        refresh();
    });
    connect(&document, &Document::shootChanged, this, &NotesPanel::refresh);
    connect(&document, &Document::selected, this, &NotesPanel::refresh);
    connect(&document, &Document::answered, this, [this] {
        refresh();
        if (!wanted_.empty()) apply(std::exchange(wanted_, {}));
    });
    refresh();
}

void NotesPanel::resizeEvent(QResizeEvent* event) {
    QScrollArea::resizeEvent(event);
    if (event->size().width() != event->oldSize().width()) arrange();
}

void NotesPanel::refresh() {
    const bool answered = document_.isAnswered();
    shown_.clear();
    int remedies = 0;
    QStringList usual;
    for (const auto& note : document_.notes()) {
        remedies += note.remedy ? 1 : 0;
        const char* words = advice::usual_words(note);
        if (words) usual << tr(words);
        if (!words || unfolded_) shown_.push_back(note);
    }
    while (cards_.size() < shown_.size()) {
        auto* card = new NoteCard(sheet_);
        connect(card->remedy(), &QPushButton::clicked, this, [this, card] { apply(card->code()); });
        cards_.push_back(card);
    }
    for (std::size_t i = 0; i < cards_.size(); ++i) {
        cards_[i]->setVisible(i < shown_.size());
        if (i < shown_.size()) {
            cards_[i]->show(shown_[i], answered);
        } else {
            cards_[i]->setObjectName({});
            cards_[i]->remedy()->setObjectName({});
        }
    }
    if (answered) right_->setVisible(remedies > 1);
    usual_->setVisible(!usual.isEmpty());
    usual_->setText(unfolded_ ? tr("\u25be Usual here") : tr("\u25b8 Usual here: %1").arg(usual.join(tr("; "))));
    usual_->setToolTip(unfolded_ ? tr("Fold them to a line") : tr("Show each"));
    arrange();
}

void NotesPanel::arrange() {
    constexpr int gap = 5;
    const int width = viewport()->width() - 2;
    int y = 0;
    if (!right_->isHidden()) {
        right_->setGeometry(0, y, width, right_->sizeHint().height());
        y += right_->height() + gap;
    }
    for (auto* card : cards_) {
        if (card->isHidden()) continue;
        const int height = card->layOut(width);
        card->setGeometry(0, y, width, height);
        y += height + gap;
    }
    if (!usual_->isHidden()) {
        // A line, or as many as it takes; a button does not wrap by itself.
        const int height = QFontMetrics(usual_->font())
                               .boundingRect(QRect(0, 0, width - 16, 10000), Qt::TextWordWrap, usual_->text())
                               .height();
        usual_->setGeometry(0, y, width, height + 8);
        y += height + 8 + gap;
    }
    sheet_->resize(width, y);
    if (y == wantedHeight_) return;
    wantedHeight_ = y;
    Q_EMIT wantedHeightChanged();
}

void NotesPanel::apply(const std::string& code) {
    if (!document_.isAnswered()) {  // at once after an edit: as soon as it is known
        wanted_ = code;
        return;
    }
    const auto note = std::ranges::find(shown_, code, &advice::Note::code);
    if (note == shown_.end() || !note->remedy) return;
    const auto remedy = note->remedy;
    document_.editShot({QString::fromStdString(remedy->label)}, [&](shoot::Shot& shot) { shot = remedy->shot; });
}

}  // namespace poquito::desk
