<?php

declare(strict_types=1);

namespace Plinth\Core\Bodies\Internal;

use Plinth\Core\Plan\Model\Opening;
use Plinth\Core\Plan\Model\OpeningHead;
use Plinth\Core\Plan\Model\OpeningKind;
use Plinth\Core\Plan\Model\Wall;

/**
 * The form of an opening along its wall: what it cuts out, and the frame and what closes it.
 *
 * An arc is drawn by chords that take in exactly its area. What a frame measures: common practice, no source.
 *
 * @internal
 */
final readonly class OpeningForm
{
    private const FRAME_MM = 50.0;
    public const FRAME_DEEP_MM = 70.0;
    private const LEAF_DEEP_MM = 40.0;
    private const PANE_DEEP_MM = 24.0;
    /** How far a chord lies off its arc, mm. */
    private const CHORD_MM = 1.0;
    /** Higher than anything stands: what reaches to the top of its wall, mm. */
    private const NO_END_MM = 1e7;

    /** @var list<float> distances from the wall's start at which its sill or head bends */
    private array $bends;
    /** How much the chords of its arcs are drawn out, so that they take in what the arcs do. */
    private float $drawnOut;
    private float $start;
    private float $end;

    public function __construct(private Wall $wall, private Opening $opening, private float $base)
    {
        $this->start = max(0.0, $opening->offset);
        $this->end = min($wall->length(), $opening->offset + $opening->width);
        $bends = [$this->start, $this->end];
        if ($this->isArched()) {
            $arc = $this->arc();
            $count = max(4, (int) ceil($arc['half'] / acos(max(0.0, 1.0 - self::CHORD_MM / $arc['radius']))));
            for ($i = 1; $i < $count; ++$i) {
                $bends[] = $this->middle() - $arc['radius'] * sin($arc['half'] * (1.0 - 2.0 * $i / $count));
            }
        }
        foreach ([$this->start + self::FRAME_MM, $this->middle(), $this->end - self::FRAME_MM] as $at) {
            $bends[] = $at;
        }
        sort($bends);
        $kept = [];
        foreach ($bends as $at) {
            if ($at >= $this->start && $at <= $this->end && ([] === $kept || $at - $kept[\count($kept) - 1] > 0.01)) {
                $kept[] = $at;
            }
        }
        $this->bends = $kept;
        $drawn = 0.0;
        foreach ($kept as $i => $to) {
            $drawn += $i > 0 ? ($to - $kept[$i - 1]) * ($this->rise($to) + $this->rise($kept[$i - 1])) / 2.0 : 0.0;
        }
        $this->drawnOut = $this->isArched() && $drawn > 0.0 ? $this->area() / $drawn : 1.0;
    }

    /** @return bool whether any of it lies within its wall */
    public function isThere(): bool
    {
        return $this->end - $this->start > 1.0;
    }

    /** @return list<Slice> what is cut out of the wall */
    public function cut(): array
    {
        $bends = $this->isArched() ? $this->bends : [$this->start, $this->end];

        return $this->slices(
            $bends,
            fn (float $from, float $to): array => [[$this->plane($from, $to, false), $this->plane($from, $to, true)]],
        );
    }

    /**
     * @return list<array{kind: 'frame'|'leaf'|'pane', deep: float, slices: list<Slice>}> what stands in it, each in the middle of the
     *                                                                                    wall's thickness
     */
    public function fills(): array
    {
        $f = self::FRAME_MM;
        if (OpeningKind::Opening === $this->opening->kind || $this->end - $this->start < 4.0 * $f) {
            return [];
        }
        $isDoor = OpeningKind::Door === $this->opening->kind;
        $isWithin = fn (float $from, float $to): bool => $from > $this->start + $f - 0.1 && $to < $this->end - $f + 0.1;
        $frame = function (float $from, float $to) use ($isWithin, $isDoor, $f): array {
            [$sill, $head] = [$this->plane($from, $to, false), $this->plane($from, $to, true)];
            if (!$isWithin($from, $to)) {
                return [[$sill, $head]];
            }

            return [...($isDoor ? [] : [[$sill, $sill->raised($f)]]), [$head->raised(-$f), $head]];
        };
        $within = function (float $from, float $to) use ($isWithin, $isDoor, $f): array {
            [$sill, $head] = [$this->plane($from, $to, false), $this->plane($from, $to, true)];

            return $isWithin($from, $to) ? [[$isDoor ? $sill : $sill->raised($f), $head->raised(-$f)]] : [];
        };
        $deep = $this->wall->thickness;
        $fills = [['kind' => 'frame', 'deep' => min($deep, self::FRAME_DEEP_MM), 'slices' => $this->slices($this->bends, $frame)]];
        $slices = $this->slices($this->bends, $within);
        $parts = [$slices];
        if ($isDoor && 'double' === $this->opening->leaf) {
            $parts = [
                array_values(array_filter($slices, fn (Slice $s): bool => $s->to <= $this->middle() + 0.1)),
                array_values(array_filter($slices, fn (Slice $s): bool => $s->from >= $this->middle() - 0.1)),
            ];
        }
        foreach ($parts as $part) {
            $fills[] = [
                'kind' => $isDoor ? 'leaf' : 'pane',
                'deep' => min($deep, $isDoor ? self::LEAF_DEEP_MM : self::PANE_DEEP_MM),
                'slices' => $part,
            ];
        }

        return $fills;
    }

    /**
     * @param list<float> $bends
     * @param callable(float, float): list<array{HeightPlane, HeightPlane}> $spans
     *
     * @return list<Slice>
     */
    private function slices(array $bends, callable $spans): array
    {
        $slices = [];
        foreach ($bends as $i => $to) {
            if ($i > 0 && [] !== ($of = $spans($bends[$i - 1], $to))) {
                $slices[] = new Slice($bends[$i - 1], $to, $of);
            }
        }

        return $slices;
    }

    /** Of its sill or head between two places along the wall. */
    private function plane(float $from, float $to, bool $isHead): HeightPlane
    {
        $sill = $this->base + $this->opening->sill;
        $height = $this->opening->height;
        if (null === $height) {
            return HeightPlane::level($isHead ? $sill + self::NO_END_MM : $sill);
        }
        $arc = $this->isArched() ? $this->arc()['rise'] : 0.0;
        $isRound = OpeningHead::Round === $this->opening->head;
        if (!$this->isArched() || (!$isHead && !$isRound)) {
            return HeightPlane::level($isHead ? $sill + $height : $sill);
        }
        $spring = $sill + $height - $arc;
        $at = fn (float $s): float => $spring + ($isHead ? 1.0 : -1.0) * $this->drawnOut * $this->rise($s);
        [$p, $q] = [$this->wall->at($from), $this->wall->at($to)];
        $chord = $p->distanceTo($q) ** 2;
        $rises = $at($to) - $at($from);

        return HeightPlane::through($p->x, $p->y, $at($from), $rises * ($q->x - $p->x) / $chord, $rises * ($q->y - $p->y) / $chord);
    }

    private function isArched(): bool
    {
        return OpeningHead::Level !== $this->opening->head && null !== $this->opening->height && $this->arc()['rise'] > 1.0;
    }

    private function middle(): float
    {
        return ($this->start + $this->end) / 2.0;
    }

    /** @return array{rise: float, radius: float, half: float} of its head: rise over the springing, radius across, half its angle */
    private function arc(): array
    {
        $half = max(1.0, ($this->end - $this->start) / 2.0);
        $height = $this->opening->height ?? 0.0;
        // What is higher than half as wide is drawn out into part of an ellipse.
        $rise = match ($this->opening->head) {
            OpeningHead::Round => $height / 2.0,
            OpeningHead::Semicircle => min($height, $half),
            OpeningHead::Segment => min($height, $half, $this->opening->rise),
            OpeningHead::Level => 0.0,
        };
        if (OpeningHead::Segment !== $this->opening->head || $rise <= 1.0) {
            return ['rise' => $rise, 'radius' => $half, 'half' => \M_PI_2];
        }
        $radius = ($half * $half + $rise * $rise) / (2.0 * $rise);

        return ['rise' => $rise, 'radius' => $radius, 'half' => asin(min(1.0, $half / $radius))];
    }

    /** How high the head's arc stands over its springing, mm, before its chords are drawn out. */
    private function rise(float $along): float
    {
        if (!$this->isArched()) {
            return 0.0;
        }
        ['rise' => $rise, 'radius' => $radius, 'half' => $half] = $this->arc();
        $off = min($radius, abs($along - $this->middle()));
        if ($half >= \M_PI_2) {
            return $rise * sqrt(max(0.0, 1.0 - ($off / $radius) ** 2));
        }

        return max(0.0, sqrt($radius * $radius - $off * $off) - ($radius - $rise));
    }

    /** @return float mm² between its head's arc and the springing; any textbook of mensuration */
    private function area(): float
    {
        ['rise' => $rise, 'radius' => $radius, 'half' => $half] = $this->arc();

        return $half >= \M_PI_2 ? \M_PI * $radius * $rise / 2.0 : $radius ** 2 * ($half - sin(2.0 * $half) / 2.0);
    }
}
