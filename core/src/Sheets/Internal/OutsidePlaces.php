<?php

declare(strict_types=1);

namespace Plinth\Core\Sheets\Internal;

use Plinth\Core\Sheets\ChainSide;

/**
 * What the chains outside a building tell of from one of its sides: corners of walls that are seen from there, jambs of openings in them,
 * and the faces of the rooms behind them.
 *
 * @internal
 *
 * @phpstan-type Ring non-empty-list<array{float, float}>
 */
final class OutsidePlaces
{
    /** A wall faces a side that looks there, but for so much, as a sine: some 6°. */
    private const ASKEW = 0.1;
    /** No wall that rooms lie behind is thicker, mm. */
    private const THICKEST_MM = 1000.0;
    /** Nearer places than this are one; a jamb that lies no further off a face lies in it, mm. */
    private const SAME_MM = 2.0;

    /** @var list<array{float, float, float, string, string}> faces that look there: from and to, how far out, mm; what their ends are */
    private array $faces = [];

    /** @param list<Ring> $rings round walls, counter-clockwise */
    public function __construct(private readonly array $rings, private readonly ChainSide $side, private readonly PlaceNames $names)
    {
        $all = [];
        foreach ($rings as $ring) {
            foreach ($ring as $i => $p) {
                [$along, $out] = $side->of($p);
                [$to, $next] = $side->of($ring[($i + 1) % \count($ring)]);
                $length = hypot($to - $along, $next - $out);
                // Round a building the other way than its side counts, faces that look there run on.
                if ($length > self::SAME_MM && abs($next - $out) < self::ASKEW * $length && ($to > $along) === $side->runsOn()) {
                    $ends = [$names->of($p), $names->of($ring[($i + 1) % \count($ring)])];
                    $all[] = [min($along, $to), max($along, $to), max($out, $next), ...($to > $along ? $ends : array_reverse($ends))];
                }
            }
        }
        usort($all, static fn (array $a, array $b): int => $a[0] <=> $b[0]);
        foreach ($all as [$from, $to, $out, $begins, $ends]) {
            $middle = ($from + $to) / 2.0;
            $before = array_filter($all, static fn (array $f): bool => $f[2] > $out + self::SAME_MM && $f[0] < $middle && $f[1] > $middle);
            $last = \count($this->faces) - 1;
            $runsOn = $last >= 0
                && abs($this->faces[$last][2] - $out) < self::SAME_MM
                && abs($this->faces[$last][1] - $from) < self::SAME_MM;
            if ([] === $before && $runsOn) {
                // Where an inner wall joins there is a corner of the outline and none of the building.
                $this->faces[$last] = [$this->faces[$last][0], $to, $this->faces[$last][2], $this->faces[$last][3], $ends];
            } elseif ([] === $before) {
                $this->faces[] = [$from, $to, $out, $begins, $ends];
            }
        }
    }

    /**
     * Corners, and the inner faces of the rooms that lie right behind what is seen.
     *
     * @param list<Ring> $regions along inner faces, counter-clockwise
     *
     * @return list<array{float, float, string}> none where no room lies there
     */
    public function rooms(array $regions): array
    {
        $places = [];
        foreach ($regions as $ring) {
            foreach ($ring as $i => $p) {
                [$along, $out] = $this->side->of($p);
                [$to, $next] = $this->side->of($ring[($i + 1) % \count($ring)]);
                if (hypot($to - $along, $next - $out) <= self::SAME_MM || ($to > $along) !== $this->side->runsOn()) {
                    continue;
                }
                $ends = [[$along, $this->names->of($p)], [$to, $this->names->of($ring[($i + 1) % \count($ring)])]];
                [[$low, $first], [$high, $second]] = $to > $along ? $ends : array_reverse($ends);
                foreach ($this->faces as [$from, $until, $face]) {
                    $behind = $face - max($out, $next);
                    $isThere = $behind > 0.0 && $behind < self::THICKEST_MM && abs($next - $out) < self::ASKEW * ($high - $low);
                    if ($isThere && $low > $from - self::SAME_MM && $high < $until + self::SAME_MM) {
                        array_push($places, [$low, $face, $first], [$high, $face, $second]);
                    }
                }
            }
        }

        return [] === $places ? [] : self::once([...$this->corners(), ...$places]);
    }

    /** @return float mm, how far out walls reach over a place; no less than the place itself */
    public function over(float $along, float $out): float
    {
        foreach ($this->rings as $ring) {
            foreach ($ring as $i => $p) {
                [$from, $a] = $this->side->of($p);
                [$to, $b] = $this->side->of($ring[($i + 1) % \count($ring)]);
                if ($along > min($from, $to) - self::SAME_MM && $along < max($from, $to) + self::SAME_MM) {
                    $part = abs($to - $from) < self::SAME_MM ? 0.0 : max(0.0, min(1.0, ($along - $from) / ($to - $from)));
                    $out = max($out, $a + $part * ($b - $a));
                }
            }
        }

        return $out;
    }

    /** @return list<array{float, float, string}> along the side, out, and what is there; each once, in order */
    public function corners(): array
    {
        $places = [];
        foreach ($this->faces as [$from, $to, $out, $begins, $ends]) {
            array_push($places, [$from, $out, $begins], [$to, $out, $ends]);
        }

        return self::once($places);
    }

    /**
     * @param array<string, Ring> $openings cut-outs in plan, by id
     *
     * @return list<array{float, float, string}>
     */
    public function jambs(array $openings): array
    {
        $places = [];
        foreach ($openings as $id => $ring) {
            $at = array_map($this->side->of(...), $ring);
            [$from, $to] = [min(array_column($at, 0)), max(array_column($at, 0))];
            foreach ($this->faces as [$low, $high, $out]) {
                $inFace = array_filter($at, static fn (array $p): bool => abs($p[1] - $out) < self::SAME_MM);
                if (\count($inFace) > 1 && $from > $low - self::SAME_MM && $to < $high + self::SAME_MM) {
                    array_push($places, [$from, $out, "$id<"], [$to, $out, "$id>"]);
                }
            }
        }

        return self::once($places);
    }

    /**
     * @param list<array{float, float, string}> $places
     *
     * @return list<array{float, float, string}> in order, each once: the one furthest out
     */
    public static function once(array $places): array
    {
        usort($places, static fn (array $a, array $b): int => $a[0] <=> $b[0]);
        $kept = [];
        foreach ($places as $place) {
            $last = \count($kept) - 1;
            if ($last >= 0 && $place[0] - $kept[$last][0] < self::SAME_MM) {
                $kept[$last] = [$kept[$last][0], max($kept[$last][1], $place[1]), min($kept[$last][2], $place[2])];
            } else {
                $kept[] = $place;
            }
        }

        return $kept;
    }
}
