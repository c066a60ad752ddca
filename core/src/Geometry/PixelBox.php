<?php

declare(strict_types=1);

namespace Plinth\Core\Geometry;

/** An upright box on a page, page pixels. */
final readonly class PixelBox
{
    public function __construct(public float $left, public float $top, public float $width, public float $height)
    {
    }

    public static function between(float $left, float $top, float $right, float $bottom): self
    {
        return new self($left, $top, $right - $left, $bottom - $top);
    }

    public function right(): float
    {
        return $this->left + $this->width;
    }

    public function bottom(): float
    {
        return $this->top + $this->height;
    }

    public function centre(): PixelPoint
    {
        return new PixelPoint($this->left + $this->width / 2.0, $this->top + $this->height / 2.0);
    }

    /** @return array{PixelPoint, PixelPoint, PixelPoint, PixelPoint} from the upper left, clockwise as seen */
    public function corners(): array
    {
        return [
            new PixelPoint($this->left, $this->top),
            new PixelPoint($this->right(), $this->top),
            new PixelPoint($this->right(), $this->bottom()),
            new PixelPoint($this->left, $this->bottom()),
        ];
    }

    public function area(): float
    {
        return $this->width * $this->height;
    }

    public function union(self $other): self
    {
        return self::between(
            min($this->left, $other->left),
            min($this->top, $other->top),
            max($this->right(), $other->right()),
            max($this->bottom(), $other->bottom()),
        );
    }

    /** Area that both cover, px². */
    public function overlap(self $other): float
    {
        return max(
            0.0,
            min($this->right(), $other->right()) - max($this->left, $other->left),
        ) * max(0.0, min($this->bottom(), $other->bottom()) - max($this->top, $other->top));
    }

    /** Widest of the two distances between the boxes along x and y, px; 0 where they touch or overlap. */
    public function gap(self $other): float
    {
        return max(
            0.0,
            max($this->left, $other->left) - min($this->right(), $other->right()),
            max($this->top, $other->top) - min($this->bottom(), $other->bottom()),
        );
    }

    /** Overlap over union, 0 to 1. */
    public function likeness(self $other): float
    {
        $both = $this->overlap($other);

        return $both / max(1e-9, $this->area() + $other->area() - $both);
    }

    public function scaled(float $factor): self
    {
        return new self($this->left * $factor, $this->top * $factor, $this->width * $factor, $this->height * $factor);
    }

    /** Grown on all sides, but not beyond a page of this size. */
    public function grown(float $by, float $pageWidth, float $pageHeight): self
    {
        return self::between(
            max(0.0, $this->left - $by),
            max(0.0, $this->top - $by),
            min($pageWidth, $this->right() + $by),
            min($pageHeight, $this->bottom() + $by),
        );
    }
}
