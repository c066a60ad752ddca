<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Ink;

use PHPUnit\Framework\TestCase;
use Plinth\Core\Exchange\Dxf\DxfLines;
use Plinth\Core\Exchange\Dxf\DxfWriter;
use Plinth\Core\Exchange\PlanDocument\PlanReader;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Ink\Walls\DrawnWalls;
use Plinth\Core\Ink\Walls\ProposedWall;
use Plinth\Core\Plan\Derivation\Derivation;
use Plinth\Core\Plan\Model\Opening;
use Plinth\Core\Plan\Model\OpeningKind;
use Plinth\Core\Plan\Model\Storey;
use Plinth\Core\Plan\Model\Wall;
use Plinth\Core\Sheets\PlanBeside;

/**
 * Walls of drawings whose lines are exact: every one, with its ends and openings where its lines are; and none of what is no wall.
 *
 * @phpstan-import-type Line from DrawnWalls
 */
final class DrawnWallsTest extends TestCase
{
    /** mm: a DXF of ours tells places to a ten-thousandth */
    private const EXACT = 0.001;
    /** mm: where straight faces cut its chords, a curved face of ours ends so far beside its arc */
    private const ON_CHORD = 0.15;

    /** @return list<Line> all lines of the storey as it is handed over, turned by so much */
    private static function drawn(Storey $storey, float $turn = 0.0): array
    {
        $path = (string) tempnam(sys_get_temp_dir(), 'dxf');
        file_put_contents($path, DxfWriter::building([[$storey, Derivation::of($storey), new PlanBeside()]]));
        $read = DxfLines::read($path);
        unlink($path);
        [$c, $s] = [cos($turn), sin($turn)];
        $of = static fn (float $x, float $y): array => [$c * $x - $s * $y, $s * $x + $c * $y];
        $lines = [];
        foreach ($read->chains as $k => $chain) {
            for ($i = 0; $i + 1 < \count($chain); ++$i) {
                [[$x1, $y1], [$x2, $y2]] = [$of(...$chain[$i]), $of(...$chain[$i + 1])];
                $lines[] = [$x1, $y1, $x2, $y2, $read->pens[$k]];
            }
        }

        return $lines;
    }

    private static function assertFound(Storey $storey, DrawnWalls $found, float $turn = 0.0, string $which = '', float $near = self::EXACT): void
    {
        self::assertCount(\count($storey->walls), $found->walls, $which);
        self::assertCount(\count($storey->openings), $found->openings, $which);
        $at = static fn (Point $p): Point => new Point(cos($turn) * $p->x - sin($turn) * $p->y, sin($turn) * $p->x + cos($turn) * $p->y);
        $same = static fn (Point $a, Point $b): bool => $a->distanceTo($b) < $near;
        foreach ($storey->walls as $wall) {
            [$from, $to] = [$at($wall->from), $at($wall->to)];
            $is = array_filter($found->walls, static fn (ProposedWall $w): bool => abs($w->thickness - $wall->thickness) < $near
                && (($same($w->from, $from) && $same($w->to, $to) && abs($w->rise - $wall->rise) < $near)
                    || ($same($w->from, $to) && $same($w->to, $from) && abs($w->rise + $wall->rise) < $near)));
            self::assertCount(1, $is, "$which $wall->id");
            $k = array_key_first($is);
            $isTurned = $same($found->walls[$k]->from, $to);
            $its = array_values(array_filter($storey->openings, static fn (Opening $o): bool => $o->wall === $wall->id));
            $theirs = array_values(array_filter($found->openings, static fn ($o): bool => $o->wall === $k));
            self::assertCount(\count($its), $theirs, "$which $wall->id");
            foreach ($its as $o) {
                $offset = $isTurned ? $wall->length() - $o->offset - $o->width : $o->offset;
                $there = array_filter($theirs, static fn ($t): bool => abs($t->offset - $offset) < $near && abs($t->width - $o->width) < $near && $t->kind === $o->kind);
                self::assertCount(1, $there, "$which opening $o->id");
            }
        }
    }

    public function testTheDemosLodgeComesBackFromItsDxf(): void
    {
        $storey = PlanReader::read((string) file_get_contents(__DIR__.'/../../../demo/reedmace-lodge.json'))->storeys[0];
        self::assertFound($storey, DrawnWalls::in(self::drawn($storey)));
    }

    public function testRandomBuildingsComeBackWhicheverWayTheyLie(): void
    {
        mt_srand(2901);
        for ($k = 0; $k < 40; ++$k) {
            [$storey, $turn] = [self::building(), 0 === $k % 3 ? 0.0 : mt_rand(-700, 700) / 1000.0];
            self::assertFound($storey, DrawnWalls::in(self::drawn($storey, $turn)), $turn, "building $k");
        }
    }

    public function testCurvedWallsComeBackWithWhatIsInThem(): void
    {
        mt_srand(2902);
        for ($k = 0; $k < 40; ++$k) {
            [$storey, $turn] = [self::building(), 0 === $k % 3 ? 0.0 : mt_rand(-700, 700) / 1000.0];
            $round = static fn (Wall $w): Wall => new Wall($w->id, $w->from, $w->to, $w->thickness, rise: match ($w->id) {
                'e' => -mt_rand(60, 180) * 10.0, 'w' => mt_rand(-1, 1) * mt_rand(60, 90) * 10.0, 'c1' => mt_rand(-1, 1) * mt_rand(30, 60) * 10.0, default => 0.0,
            });
            $walls = array_map($round, $storey->walls);
            $storey = new Storey('b', 'Ground', 0.0, 2700.0, $walls, $storey->openings);
            self::assertFound($storey, DrawnWalls::in(self::drawn($storey, $turn)), $turn, "building $k", self::ON_CHORD);
        }
    }

    /**
     * A tower 6 m wide, drawn by arcs as an SVG has them, walls 400 thick, with a doorway a metre wide on its outer face: no wall runs all
     * round, so that it is two, exact to a hundredth of a millimetre.
     */
    public function testATowerIsTwoWallsThatAreExact(): void
    {
        [$out, $in] = [3200.0, 2800.0];
        // From jamb to jamb all round, by three arcs on either face.
        $half = asin(500.0 / $out);
        $at = static fn (float $r, float $a): array => [10_000.0 + $r * cos($a), 5000.0 + $r * sin($a)];
        $lines = [];
        foreach ([$out, $in] as $radius) {
            for ($i = 0; $i < 3; ++$i) {
                $step = (2.0 * \M_PI - 2.0 * $half) / 3.0;
                $lines[] = [...$at($radius, $half + $i * $step), ...$at($radius, $half + ($i + 1) * $step), 0, -$radius * (1.0 - cos($step / 2.0))];
            }
        }
        foreach ([$half, -$half] as $jamb) {
            $lines[] = [...$at($in, $jamb), ...$at($out, $jamb), 0];
        }
        // With the same pen, a round table.
        foreach ([0.0, \M_PI] as $a) {
            $lines[] = [...$at(600.0, $a), ...$at(600.0, $a + \M_PI), 0, -600.0];
        }
        $found = DrawnWalls::in($lines);
        self::assertCount(2, $found->walls);
        foreach ($found->walls as $wall) {
            self::assertEqualsWithDelta(400.0, $wall->thickness, 0.01);
            $line = $wall->wall('w');
            foreach ([0.0, 0.3, 0.7, 1.0] as $part) {
                $p = $line->at($part * $line->length());
                self::assertEqualsWithDelta(3000.0, hypot($p->x - 10_000.0, $p->y - 5000.0), 0.01);
            }
        }
        $whole = array_sum(array_map(static fn (ProposedWall $w): float => $w->length(), $found->walls));
        self::assertEqualsWithDelta(2.0 * \M_PI * 3000.0, $whole, 0.01);
        self::assertCount(1, $found->openings);
        self::assertEqualsWithDelta(2.0 * $half * 3000.0, $found->openings[0]->width, 0.01);
    }

    /** A square of four lines, a hexagon, a bay of three facets: corners of a circle, and no arcs. */
    public function testFacetsAreNoArcs(): void
    {
        foreach ([4, 6, 12] as $corners) {
            $lines = [];
            foreach ([3200.0, 2800.0] as $radius) {
                for ($i = 0; $i < $corners; ++$i) {
                    [$a, $b] = [2.0 * \M_PI * $i / $corners, 2.0 * \M_PI * ($i + 1) / $corners];
                    $lines[] = [$radius * cos($a), $radius * sin($a), $radius * cos($b), $radius * sin($b), 0];
                }
            }
            $found = DrawnWalls::in($lines);
            self::assertCount($corners, $found->walls, "$corners facets");
            self::assertSame([0.0], array_values(array_unique(array_map(static fn (ProposedWall $w): float => $w->rise, $found->walls))));
        }
    }

    /** Outer walls, some that run from one to the other, and doors and windows off their ends. */
    private static function building(): Storey
    {
        [$wide, $deep, $outer] = [mt_rand(70, 160) * 100.0, mt_rand(60, 110) * 100.0, mt_rand(20, 40) * 10.0];
        $walls = [
            new Wall('s', new Point(0.0, 0.0), new Point($wide, 0.0), $outer), new Wall('e', new Point($wide, 0.0), new Point($wide, $deep), $outer),
            new Wall('n', new Point($wide, $deep), new Point(0.0, $deep), $outer), new Wall('w', new Point(0.0, $deep), new Point(0.0, 0.0), $outer),
        ];
        $across = mt_rand(1, 3);
        for ($i = 1; $i <= $across; ++$i) {
            $x = round($wide * $i / ($across + 1)) + 0.5;
            $walls[] = new Wall("c$i", new Point($x, 0.0), new Point($x, $deep), mt_rand(8, 15) * 10.0);
        }
        $openings = [];
        foreach ($walls as $wall) {
            // In the middle of each field between the walls that end on it.
            $fields = 'c' === $wall->id[0] || 'e' === $wall->id || 'w' === $wall->id ? 1 : $across + 1;
            for ($i = 0; $i < $fields; ++$i) {
                $width = mt_rand(70, 110) * 10.0;
                $middle = $wall->length() * ($i + 0.5) / $fields + mt_rand(-90, 90);
                if (0 !== mt_rand(0, 3)) {
                    $openings[] = new Opening($wall->id."o$i", $wall->id, 0 === $i % 2 ? OpeningKind::Window : OpeningKind::Door, $middle - $width / 2.0, $width);
                }
            }
        }

        return new Storey('b', 'Ground', 0.0, 2700.0, $walls, $openings);
    }

    /** A title block, a grid of tiles, a table: parallel lines, and no walls. */
    public function testWhatIsRuledIsNoWallUnlessTheInkAgrees(): void
    {
        $lines = [];
        for ($i = 0; $i <= 12; ++$i) {
            $lines[] = [0.0, 450.0 * $i, 5400.0, 450.0 * $i, 0];
            $lines[] = [450.0 * $i, 0.0, 450.0 * $i, 5400.0, 0];
        }
        $found = DrawnWalls::in($lines);
        self::assertSame([], $found->openings);
        self::assertFalse($found->agreeWith([]));
        $shown = static fn (float $y): ProposedWall => new ProposedWall(new Point(20_000.0, $y), new Point(26_000.0, $y), 300.0, 1.0, 1.0, 0.9, 'solid', []);
        self::assertFalse($found->agreeWith([$shown(0.0), $shown(4000.0)]));
        $storey = self::building();
        $real = DrawnWalls::in(self::drawn($storey));
        $ink = array_map(static fn (Wall $w): ProposedWall => new ProposedWall($w->from, $w->to, $w->thickness + 6.0, 3.0, 3.0, 0.9, 'solid', []), $storey->walls);
        self::assertTrue($real->agreeWith($ink));
        self::assertFalse($real->agreeWith([...$ink, ...array_map($shown, range(0.0, 40_000.0, 4000.0))]));
        self::assertSame([], DrawnWalls::in([])->walls);
        // What the ink shows beside them is kept, to be looked at; what lies on them is not there twice.
        $more = $real->beside([...$ink, $shown(0.0)], []);
        self::assertCount(\count($storey->walls) + 1, $more->walls);
        self::assertSame([true, false], [$more->walls[0]->isSure(), $more->walls[\count($storey->walls)]->isSure()]);
    }
}
