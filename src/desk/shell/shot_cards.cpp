#include "desk/shell/shot_cards.hpp"

#include "desk/shell/status_mark.hpp"

#include "desk/drawing/frame_drawing.hpp"
#include "desk/session/document.hpp"
#include "desk/session/proof_controller.hpp"
#include "desk/shell/shot_list_model.hpp"
#include "desk/text/to_qt.hpp"
#include "desk/toolkit/drafting.hpp"
#include "desk/toolkit/theme.hpp"
#include "text/text.hpp"

#include <QPainter>
#include <QStyledItemDelegate>

namespace poquito::desk {
namespace {

constexpr int card_height = 72;

}  // namespace

ShotOutcome outcomeOf(const shoot::Shot& shot, const ProofLook* look) {
    using proof::Outcome;
    if (look && !look->frames.files.empty()) {
        const auto all = look->frames.files.size();
        if (look->running) return {.words = QObject::tr("%1 of %2 looked at").arg(look->done).arg(all)};
        if (look->inspection) {
            const auto count = toQt(text::count_text(static_cast<double>(all), "frame", "frames"));
            const auto& summary = look->summary;
            const bool whole = summary.outcome == Outcome::whole;
            return {.words = whole                                  ? QObject::tr("%1, whole").arg(count)
                             : summary.outcome == Outcome::hopeless ? QObject::tr("%1, all again").arg(count)
                             : summary.to_take > 0 ? QObject::tr("%1, %2 to take").arg(count).arg(summary.to_take)
                                                   : QObject::tr("%1, look").arg(count),
                    .status = whole ? Status::settled : Status::doubtful,
                    .bad = summary.outcome >= Outcome::mendable};
        }
    }
    if (shot.proof.empty()) return {.words = QObject::tr("not looked at")};
    const bool keep = shot.proof.back().verdict == shoot::Verdict::keep;
    return {.words = keep ? QObject::tr("kept") : QObject::tr("to be redone"),
            .status = keep ? Status::settled : Status::doubtful,
            .bad = !keep};
}

class ShotCards::Delegate : public QStyledItemDelegate {
  public:
    Delegate(const Document& document, QObject* parent) : QStyledItemDelegate(parent), document_(document) {}

    const ProofController* proof = nullptr;  // null: how the plan stands

    QSize sizeHint(const QStyleOptionViewItem&, const QModelIndex&) const override { return {150, card_height + 6}; }

    void paint(QPainter* painter, const QStyleOptionViewItem& option, const QModelIndex& index) const override {
        if (index.row() >= document_.count()) return;
        const auto& shot = document_.shoot().shots[static_cast<std::size_t>(index.row())];
        const auto& assessment = document_.assessment(index.row());
        const auto& report = assessment.report;
        const Theme& t = theme();
        const bool chosen = index.row() == document_.current();
        const bool focused = option.state & QStyle::State_HasFocus;
        painter->save();
        painter->setRenderHint(QPainter::Antialiasing);
        const QRectF card = QRectF(option.rect).adjusted(1, 1, -1, -5);
        drawCard(*painter, card, t.panel, chosen ? QPen(t.link, focused ? 2.4 : 1.8) : QPen(t.hairline, 1));
        const double thumb = card.width() < 160 ? 36 : 46;
        FrameDrawing::paintFrame(*painter, QRectF(card.left() + 8, card.top() + 24, thumb, 27), shot, report);
        const double beside = thumb + 15;

        const auto line = [&](QPointF at, const QFont& font, const QColor& colour, const QString& text) {
            const double width = card.right() - 6 - at.x();
            painter->setFont(font);
            painter->setPen(colour);
            drawLine(*painter, QRectF(at, QSizeF(width, 16)), Qt::AlignLeft | Qt::AlignVCenter,
                     elided(font, text, width));
        };
        line(card.topLeft() + QPointF(8, 4), textFont(12, QFont::DemiBold), t.ink, toQt(shot.name));
        line(card.topLeft() + QPointF(beside, 22), textFont(11), t.quiet,
             tr("%1 · %2").arg(toQt(text::length_text(shot.subject.width)),
                               toQt(text::magnification_text(report.optics.magnification))));
        line(card.topLeft() + QPointF(beside, 36), textFont(11), t.quiet,
             shot.lapse
                 ? tr("every %1, %2")
                       .arg(toQt(text::time_text(shot.lapse->interval)), toQt(text::time_text(shot.lapse->length)))
             : report.capture.frames > 1 ? tr("stack of %1").arg(toQt(text::number_text(report.capture.frames, 9)))
                                         : tr("one frame"));
        if (proof)
            paintOutcome(*painter, card, shot);
        else
            paintStanding(*painter, card, assessment);
        painter->restore();
    }

  private:
    static void paintStanding(QPainter& painter, const QRectF& card, const advice::Assessment& assessment) {
        const auto status = advice::status_of(assessment);
        drawStatus(painter, {card.left() + 15, card.bottom() - 11}, markOf(status));
        painter.setFont(textFont(11));
        painter.setPen(statusColour(markOf(status)));
        drawLine(painter, QRectF(card.left() + 25, card.bottom() - 19, 80, 16), Qt::AlignLeft | Qt::AlignVCenter,
                 QLatin1String(advice::status_name(status)));
        const auto warnings = std::ranges::count_if(assessment.advice.notes, [](const auto& note) {
            return note.level != advice::Level::info && note.concern != advice::Concern::safety;
        });
        if (warnings > 0) {
            painter.setFont(textFont(11, QFont::DemiBold));
            drawLine(painter, QRectF(card.right() - 86, card.bottom() - 19, 80, 16), Qt::AlignRight | Qt::AlignVCenter,
                     warnings == 1 ? tr("1 note") : tr("%1 notes").arg(warnings));
        }
    }

    /// Of the frames: a tick whole, a triangle to be looked at, a ring nothing known; what is to take in words.
    void paintOutcome(QPainter& painter, const QRectF& card, const shoot::Shot& shot) const {
        const auto now = outcomeOf(shot, proof->look(shot.id));
        drawStatus(painter, {card.left() + 15, card.bottom() - 11}, now.status);
        painter.setFont(textFont(11, now.bad ? QFont::DemiBold : QFont::Normal));
        painter.setPen(now.bad ? theme().stop : statusColour(now.status));
        const double room = card.width() - 32;
        drawLine(painter, QRectF(card.left() + 25, card.bottom() - 19, room, 16), Qt::AlignLeft | Qt::AlignVCenter,
                 elided(painter.font(), now.words, room));
    }

    const Document& document_;
};

ShotCards::ShotCards(Document& document, QWidget* parent) : StillList(parent), document_(document) {
    setObjectName(QStringLiteral("shotCards"));
    setAccessibleName(tr("Shots"));
    setProperty("bare", true);
    setModel(new ShotListModel(document, this));
    delegate_ = new Delegate(document, this);
    setItemDelegate(delegate_);
    setUniformItemSizes(true);
    setVerticalScrollMode(ScrollPerPixel);
    setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    setDragDropMode(InternalMove);
    setDefaultDropAction(Qt::MoveAction);
    setSelectionMode(SingleSelection);
    setContextMenuPolicy(Qt::ActionsContextMenu);
    connect(&document, &Document::selected, this, &ShotCards::followSelection);
    connect(&document, &Document::shootChanged, this, &ShotCards::followSelection);
    followSelection();
}

void ShotCards::showProof(const ProofController* proof) {
    delegate_->proof = proof;
    viewport()->update();
}

void ShotCards::currentChanged(const QModelIndex& current, const QModelIndex& previous) {
    QListView::currentChanged(current, previous);
    if (current.isValid()) document_.select(current.row());
}

void ShotCards::followSelection() {
    const auto wanted = model()->index(document_.current(), 0);
    if (wanted.isValid() && currentIndex() != wanted) setCurrentIndex(wanted);
    if (shown_ == document_.current()) return;
    shown_ = document_.current();
    viewport()->update();  // the frame moves from one card to the other
}

}  // namespace poquito::desk

#include "desk/shell/moc_shot_cards.moc"
