<?php

declare(strict_types=1);

namespace Plinth\Core\Sheets\Model;

/** One drawing on a print sheet, at its scale. */
final readonly class SheetView
{
    /**
     * @param string $of id of what is shown: of a storey, a side, a drawing or a picture; none of a site, a key, a table of all there is
     * @param float $x mm from the sheet's left of the zero of what is drawn to scale, of anything else its left
     * @param float $y mm from the sheet's top of that zero, of anything else its top
     * @param float $scale 1 : so much
     * @param array{float, float, float, float}|null $window mm of the model that are shown, least x and y, most x and y; all without one
     * @param float|null $width mm of paper of what is not drawn to scale; what it needs without one
     * @param string $title that stands under it; its own without one
     * @param string $words of notes, a line each
     * @param list<Shows> $shows
     * @param float $turn of what stands: which way one looks, degrees counter-clockwise from up on the plan
     * @param float $tilt how far down one looks, degrees
     * @param list<ViewMark> $marks
     */
    public function __construct(
        public string $id,
        public ViewKind $kind,
        public string $of,
        public float $x,
        public float $y,
        public float $scale = 100.0,
        public ?array $window = null,
        public ?float $width = null,
        public string $title = '',
        public string $words = '',
        public array $shows = [],
        public float $turn = 0.0,
        public float $tilt = 0.0,
        public array $marks = [],
    ) {
    }

    public function shows(Shows $what): bool
    {
        return \in_array($what, $this->shows, true);
    }

    /** The same, looked at another way. */
    public function lookedAt(float $turn, float $tilt): self
    {
        return $this->with(turn: $turn, tilt: $tilt);
    }

    /** The same at another scale, 1 : so much. */
    public function scaled(float $scale): self
    {
        return $this->with(scale: $scale);
    }

    /** The same somewhere else on its sheet. */
    public function at(float $x, float $y): self
    {
        return $this->with($x, $y);
    }

    /** Whether a drawing of what stands is a plan of it from above, which is to scale. */
    public function isFromAbove(): bool
    {
        return $this->tilt > 89.99;
    }

    private function with(?float $x = null, ?float $y = null, ?float $scale = null, ?float $turn = null, ?float $tilt = null): self
    {
        return new self(
            $this->id,
            $this->kind,
            $this->of,
            $x ?? $this->x,
            $y ?? $this->y,
            $scale ?? $this->scale,
            $this->window,
            $this->width,
            $this->title,
            $this->words,
            $this->shows,
            $turn ?? $this->turn,
            $tilt ?? $this->tilt,
            $this->marks,
        );
    }
}
