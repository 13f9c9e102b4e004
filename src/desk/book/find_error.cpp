#include "desk/book/find_error.hpp"

#include "desk/session/picture_file.hpp"
#include "desk/toolkit/caption.hpp"
#include "desk/toolkit/theme.hpp"
#include "run/rehearsal.hpp"

#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>
#include <QSlider>
#include <QVBoxLayout>

namespace poquito::desk {
namespace {

constexpr QSize picture_size(520, 330);

}  // namespace

FindError::FindError(QWidget* parent) : QWidget(parent) {
    setObjectName(QStringLiteral("findError"));
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(6);
    picture_ = new QLabel(this);
    picture_->setObjectName(QStringLiteral("errorFrame"));
    picture_->setAccessibleName(tr("The frame that is shown"));
    picture_->setFixedHeight(picture_size.height());
    column->addWidget(picture_);
    auto* line = new QHBoxLayout;
    slider_ = new QSlider(Qt::Horizontal, this);
    nameControl(slider_, {"errorSlider", tr("Frame"), tr("Flip through with the arrow keys, to and fro")});
    slider_->setFixedWidth(picture_size.width() - 130);
    line->addWidget(slider_);
    count_ = new QLabel(this);
    count_->setObjectName(QStringLiteral("errorCount"));
    line->addWidget(count_);
    line->addStretch();
    column->addLayout(line);
    auto* answers = new QHBoxLayout;
    answers->addWidget(new QLabel(tr("At this frame"), this));
    for (const auto& one : run::mishap_words()) {
        if (one.told || one.kind == devices::MishapKind::flash_not_ready) continue;
        auto* button = captionedButton({one.id, tr(one.name), tr("Say so of the frame that is shown")}, this);
        connect(button, &QPushButton::clicked, this,
                [this, kind = one.kind] { Q_EMIT answered(kind, slider_->value()); });
        answers->addWidget(button);
    }
    answers->addStretch();
    column->addLayout(answers);
    connect(slider_, &QSlider::valueChanged, this, &FindError::showFrame);
}

void FindError::setFrames(const QStringList& files) {
    files_ = files;
    pictures_ = QList<QPixmap>(files.size());
    slider_->setRange(0, static_cast<int>(std::max<qsizetype>(files.size() - 1, 0)));
    slider_->setValue(0);
    showFrame(0);
    slider_->setFocus();
}

int FindError::frame() const { return slider_->value(); }

void FindError::showFrame(int frame) {
    if (frame >= files_.size()) return;
    auto& picture = pictures_[frame];
    if (picture.isNull()) {
        picture = QPixmap::fromImage(readPicture(files_[frame].toStdString(), Turned::asItLies, picture_size)
                                         .image.scaled(picture_size, Qt::KeepAspectRatio, Qt::SmoothTransformation));
    }
    picture_->setPixmap(picture);
    count_->setText(tr("frame %1 of %2").arg(frame + 1).arg(files_.size()));
}

}  // namespace poquito::desk

#include "desk/book/moc_find_error.moc"
