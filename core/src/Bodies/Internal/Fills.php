<?php

declare(strict_types=1);

namespace Plinth\Core\Bodies\Internal;

use Plinth\Core\Bodies\Body;
use Plinth\Core\Bodies\BodyKind;
use Plinth\Core\Bodies\Mesh;
use Plinth\Core\Bodies\Placement;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Plan\Model\Opening;
use Plinth\Core\Plan\Model\OpeningHead;
use Plinth\Core\Plan\Model\Wall;

/**
 * Frames, leaves and panes in openings. Those of one size in straight walls are made once and placed.
 *
 * @internal
 *
 * @phpstan-import-type Ring from Cut
 */
final class Fills
{
    private const MODEL_MM = 1000.0;
    /** Twice as wide as both sides of a frame. */
    private const LEAST_MM = 200.0;

    /** @var array<string, list<array{BodyKind, Mesh}>> */
    private array $forms = [];

    public function __construct(private readonly string $storey)
    {
    }

    /**
     * @param float $base mm that its sill counts from
     * @param float $clear up to where nothing ends the wall or passes through it, mm
     *
     * @return list<Body>
     */
    public function of(Wall $wall, Opening $opening, float $base, float $clear, Upright $upright, float $top, bool $isOwn): array
    {
        $isWhole = $opening->offset >= 0.0 && $opening->offset + $opening->width <= $wall->length();
        // What has no height reaches to the top of its wall, if that is level.
        $height = $opening->height ?? ($clear === $top ? $top - $base - $opening->sill : \INF);
        if (null === $wall->arc() && $isWhole && $height > 1.0 && $base + $opening->sill + $height <= $clear) {
            $at = $wall->at($opening->offset);
            $length = $wall->length();
            [$cos, $sin] = [($wall->to->x - $wall->from->x) / $length, ($wall->to->y - $wall->from->y) / $length];
            $placement = new Placement($at->x, $at->y, $base + $opening->sill, $cos, $sin);

            return array_map(
                fn (array $form): Body => new Body($form[0], $opening->id, $this->storey, $form[1], $placement),
                // In a thicker wall it is the same.
                $this->forms(min($wall->thickness, OpeningForm::FRAME_DEEP_MM), $opening, $height),
            );
        }
        $bodies = [];
        foreach (self::made($wall, $opening, $base, $upright, $top, $isOwn) as [$kind, $mesh]) {
            $bodies[] = new Body($kind, $opening->id, $this->storey, $mesh);
        }

        return $bodies;
    }

    /** @return list<array{BodyKind, Mesh}> about the opening's own start, on its sill */
    private function forms(float $thickness, Opening $o, float $height): array
    {
        // What is square and not too small is one form drawn out; its frame stays as wide.
        $isDrawnOut = OpeningHead::Level === $o->head && min($o->width, $height) > self::LEAST_MM;
        [$w, $h] = $isDrawnOut ? [self::MODEL_MM, self::MODEL_MM] : [$o->width, $height];
        $key = implode(' ', [$thickness, $o->kind->value, $w, $h, $o->leaf, $o->head->value, $o->rise]);
        if (!isset($this->forms[$key])) {
            $wall = new Wall('', new Point(0.0, 0.0), new Point($w, 0.0), $thickness);
            $form = new Opening('', '', $o->kind, 0.0, $w, 0.0, $h, $o->hand, $o->swing, $o->leaf, $o->head, $o->rise);
            $this->forms[$key] = self::made($wall, $form, 0.0, new Upright([], []), \INF, true);
        }

        return !$isDrawnOut ? $this->forms[$key] : array_map(
            static fn (array $form): array => [$form[0], self::drawnOut($form[1], $o->width, $height)],
            $this->forms[$key],
        );
    }

    /** Both halves of the model moved apart, and the middle to the middle. */
    private static function drawnOut(Mesh $model, float $width, float $height): Mesh
    {
        [$left, $right] = [self::MODEL_MM / 2.0 - 1.0, self::MODEL_MM / 2.0 + 1.0];
        [$wider, $higher] = [$width - self::MODEL_MM, $height - self::MODEL_MM];
        $vertices = [];
        foreach ($model->vertices as [$x, $y, $z]) {
            $vertices[] = [
                $x < $left ? $x : ($x > $right ? $x + $wider : $x + $wider / 2.0),
                $y,
                $z < $left ? $z : ($z > $right ? $z + $higher : $z + $higher / 2.0),
            ];
        }

        return new Mesh($vertices, $model->faces);
    }

    /** @return list<array{BodyKind, Mesh}> */
    private static function made(Wall $wall, Opening $opening, float $base, Upright $upright, float $top, bool $isOwn): array
    {
        $made = [];
        $fills = (new OpeningForm($wall, $opening, $base))->fills();
        foreach ($fills as $i => $fill) {
            $half = $fill['deep'] / 2.0;
            [$first, $last] = [$fill['slices'][0] ?? null, $fill['slices'][\count($fill['slices']) - 1] ?? null];
            if (null === $first || null === $last) {
                continue;
            }
            $ring = $wall->piece($first->from, $last->to, -$half, $half);
            // What a frame goes round is all that closes it.
            $within = 0 === $i ? array_merge(...array_column(\array_slice($fills, 1), 'slices')) : [];
            $levels = $upright->levels($ring, $base, $top, $isOwn);
            $mesh = (null === $levels ? null : self::square($wall, $ring, $levels, $first, $fill['slices'], $within))
                ?? Stack::mesh($upright->cells([$ring], $base, $top, $isOwn, $wall, $fill['slices'], true));
            if (null !== $mesh) {
                $made[] = [BodyKind::from($fill['kind']), $mesh];
            }
        }

        return $made;
    }

    /**
     * A leaf, a pane or a frame with nothing but right angles.
     *
     * @param Ring $ring
     * @param array{float, float} $levels between which nothing ends it
     * @param list<Slice> $slices
     * @param list<Slice> $within what a frame goes round
     */
    private static function square(Wall $wall, array $ring, array $levels, Slice $first, array $slices, array $within): ?Mesh
    {
        // A frame is as high as where it begins.
        $span = self::level([] === $within ? $slices : [$first]);
        $open = self::level($within);
        if (null === $span || ([] !== $within && null === $open) || $span[0]->z < $levels[0] || $span[1]->z > $levels[1]) {
            return null;
        }
        [$low, $high] = $span;
        $hole = null === $open ? [] : [new Slice($within[0]->from, $within[\count($within) - 1]->to, [$open])];

        return PlainWall::mesh($wall, $ring, $low->z, $high->z, $hole);
    }

    /**
     * @param list<Slice> $slices
     *
     * @return array{HeightPlane, HeightPlane}|null from where up to where all of them go; null where that is not the same, or not level
     */
    private static function level(array $slices): ?array
    {
        $span = $slices[0]->spans[0] ?? null;
        foreach ($slices as $slice) {
            if (1 !== \count($slice->spans) || null === $span) {
                return null;
            }
            [$low, $high] = $slice->spans[0];
            if (!$low->isLevel() || !$high->isLevel() || $low->z !== $span[0]->z || $high->z !== $span[1]->z) {
                return null;
            }
        }

        return $span;
    }
}
