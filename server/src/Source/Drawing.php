<?php

declare(strict_types=1);

namespace Plinth\Server\Source;

use Doctrine\ORM\Mapping as ORM;
use Plinth\Core\Fitting\Model;
use Plinth\Core\Fitting\ShapeModel;
use Plinth\Core\Fitting\StretchedBy;
use Plinth\Core\Geometry\PixelBox;
use Plinth\Core\Ink\Page\DrawingKind;
use Plinth\Server\Change\Kind;
use Plinth\Server\Change\ProjectRow;
use Plinth\Server\Change\Refers;
use Plinth\Server\Change\RowValues;
use Plinth\Server\Change\WhenGone;
use Plinth\Server\Http\Refusal;
use Plinth\Server\Project\Side;
use Plinth\Server\Project\Storey;
use Symfony\Bridge\Doctrine\Types\UuidType;
use Symfony\Component\Uid\Uuid;

/** One drawing cut out of a page, in page pixels. */
#[Kind('drawing')]
#[ORM\Entity]
#[ORM\Index(fields: ['project', 'page'])]
#[ORM\Index(fields: ['project', 'storey'])]
#[ORM\Index(fields: ['project', 'side'])]
class Drawing extends ProjectRow
{
    #[Refers(Page::class, then: WhenGone::GoesAlong)]
    #[ORM\Column(type: UuidType::NAME)]
    private Uuid $page;

    /** the storey it lies on; null for one that stands on a side */
    #[Refers(Storey::class, then: WhenGone::GoesAlong)]
    #[ORM\Column(type: UuidType::NAME, nullable: true)]
    private ?Uuid $storey = null;

    #[Refers(Side::class)]
    #[ORM\Column(type: UuidType::NAME, nullable: true)]
    private ?Uuid $side = null;

    #[ORM\Column(length: 120)]
    private string $name = '';

    #[ORM\Column(length: 10)]
    private DrawingKind $kind = DrawingKind::Plan;

    #[ORM\Column(name: 'left_px')]
    private float $left = 0.0;

    #[ORM\Column(name: 'top_px')]
    private float $top = 0.0;

    #[ORM\Column]
    private float $width = 0.0;

    #[ORM\Column]
    private float $height = 0.0;

    /** how strongly the picture shows, 0 to 1 */
    #[ORM\Column]
    private float $fade = 1.0;

    /** quarter turns given to it, counter-clockwise as seen: its pixels are never renumbered */
    #[ORM\Column]
    private int $turns = 0;

    /** only its ink shows, on clear paper */
    #[ORM\Column]
    private bool $inkOnly = false;

    #[ORM\Column(length: 8)]
    private Tint $tint = Tint::Ink;

    /** before the tracing instead of behind it */
    #[ORM\Column(name: 'before_tracing')]
    private bool $before = false;

    /** among the drawings of its storey or side, the higher lies on top */
    #[ORM\Column(name: 'place_in_order')]
    private int $order = 0;

    #[ORM\Column]
    private bool $hidden = false;

    /** what its fit may do to the picture; larger ones only on the user's word */
    #[ORM\Column(length: 12)]
    private Model $model = Model::Similar;

    /** x's factor over y's as somebody typed it; null where it follows from what is stated */
    #[ORM\Column(nullable: true)]
    private ?float $ownFactor = null;

    /** 1 : so many, as the drawing says of itself */
    #[ORM\Column(nullable: true)]
    private ?float $statedScale = null;

    /** longer side of its paper, mm; null where the scan's resolution counts */
    #[ORM\Column(nullable: true)]
    private ?float $statedPaper = null;

    /** control points say where it lies and how it is turned, but not how large it is */
    #[ORM\Column]
    private bool $keepsSize = false;

    /** nothing moves it any more */
    #[ORM\Column]
    private bool $locked = false;

    public function values(): array
    {
        return [
            'page' => $this->page->toRfc4122(), 'storey' => $this->storey?->toRfc4122(), 'side' => $this->side?->toRfc4122(), 'name' => $this->name, 'kind' => $this->kind->value,
            'left' => $this->left, 'top' => $this->top, 'width' => $this->width, 'height' => $this->height, 'fade' => $this->fade,
            'turns' => $this->turns, 'inkOnly' => $this->inkOnly, 'tint' => $this->tint->value, 'before' => $this->before, 'order' => $this->order, 'hidden' => $this->hidden,
            'model' => $this->model->value, 'ownFactor' => $this->ownFactor, 'statedScale' => $this->statedScale, 'statedPaper' => $this->statedPaper, 'keepsSize' => $this->keepsSize, 'locked' => $this->locked,
        ];
    }

    public function take(RowValues $values): void
    {
        $this->page = $values->id('page');
        $this->storey = $values->optionalId('storey');
        $this->side = $values->optionalId('side');
        if ((null === $this->storey) === (null === $this->side)) {
            throw Refusal::invalid('no-place', 'A drawing lies on a storey or stands on a side: name one of them.', $values->at('storey'));
        }
        $this->name = $values->name('name');
        $this->kind = $values->choice('kind', DrawingKind::class);
        $this->left = $values->notNegative('left');
        $this->top = $values->notNegative('top');
        $this->width = $values->positive('width');
        $this->height = $values->positive('height');
        $this->fade = max(0.0, min(1.0, $values->number('fade')));
        $this->turns = $values->countOr('turns', 0) % 4;
        $this->inkOnly = $values->flag('inkOnly');
        $this->tint = $values->choiceOr('tint', Tint::Ink);
        $this->before = $values->flag('before');
        $this->order = min(1_000_000, $values->countOr('order', 0));
        $this->hidden = $values->flag('hidden');
        $this->model = $values->choiceOr('model', Model::Similar);
        $this->ownFactor = $values->optionalPositive('ownFactor');
        if (null !== $this->ownFactor && ($this->ownFactor < 0.5 || $this->ownFactor > 2.0)) {
            throw Refusal::invalid(
                'factor-out-of-range',
                'A copy is not stretched to more than twice or less than half: give x’s factor over y’s, such as 1.015.',
                $values->at('ownFactor'),
            );
        }
        $this->statedScale = $values->optionalPositive('statedScale');
        $this->statedPaper = $values->optionalPositive('statedPaper');
        $this->keepsSize = $values->flag('keepsSize');
        $this->locked = $values->flag('locked');
    }

    public function shape(): ShapeModel
    {
        return Model::Stretched === $this->model && null !== $this->ownFactor ? new StretchedBy($this->ownFactor) : $this->model->shape();
    }

    public function statedScale(): ?float
    {
        return $this->statedScale;
    }

    public function statedPaper(): ?float
    {
        return $this->statedPaper;
    }

    public function keepsSize(): bool
    {
        return $this->keepsSize;
    }

    public function isLocked(): bool
    {
        return $this->locked;
    }

    public function order(): int
    {
        return $this->order;
    }

    public function turns(): int
    {
        return $this->turns;
    }

    public function box(): PixelBox
    {
        return new PixelBox($this->left, $this->top, $this->width, $this->height);
    }

    public function isAllOf(Page $page): bool
    {
        return $this->width >= $page->width() && $this->height >= $page->height();
    }

    public function storey(): ?Uuid
    {
        return $this->storey;
    }

    public function side(): ?Uuid
    {
        return $this->side;
    }

    public function page(): Uuid
    {
        return $this->page;
    }
}
