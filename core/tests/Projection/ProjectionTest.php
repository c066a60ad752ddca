<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Projection;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Plinth\Core\Bodies\BodyKind;
use Plinth\Core\Bodies\BuildingBodies;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Projection\DrawnView;
use Plinth\Core\Projection\Projection;
use Plinth\Core\Projection\View;

/** What a side and a section show is what one sees: a line wherever two things meet in sight, and nowhere else. */
final class ProjectionTest extends TestCase
{
    /** How far beside a line one looks, mm. */
    private const BESIDE_MM = 0.4;

    /** @var list<string> */
    private array $wrong = [];
    /** @var list<string> */
    private array $missing = [];
    private int $lines = 0;
    private int $meetings = 0;
    private int $swept = 0;

    /** @return iterable<string, array{int}> */
    public static function seeds(): iterable
    {
        for ($k = 0; $k < 10; ++$k) {
            yield \sprintf('%d to %d', 20 * $k, 20 * $k + 19) => [20 * $k];
        }
    }

    /** Two hundred buildings from anywhere, sides and sections, against a ray-caster. */
    #[DataProvider('seeds')]
    public function testEveryLineIsSeenAndNoneIsMissing(int $first): void
    {
        $this->begin();
        for ($seed = $first; $seed < $first + 20; ++$seed) {
            $bodies = BuildingBodies::of(Buildings::of($seed));
            mt_srand($seed);
            $turn = 0 === mt_rand(0, 1) ? \M_PI_2 * mt_rand(0, 3) : mt_rand(0, 6283) / 1000.0;
            $at = static fn (float $along, float $behind): Point => new Point(
                4000.0 + $along * cos($turn) - $behind * sin($turn),
                3000.0 + $along * sin($turn) + $behind * cos($turn),
            );
            $isSection = 0 === $seed % 2;
            $behind = $isSection ? mt_rand(-2500, 2500) + 0.37 : -30_000.0;
            [$from, $to] = [$at(-10_000.0, $behind), $at(10_000.0, $behind)];
            $view = Projection::of($bodies, $isSection ? View::section([$from, $to]) : View::side($from, $to));
            $sight = new Sight($bodies, $from, $to, $isSection ? 0.0 : null);
            $this->hold($view, $sight, $seed);
        }
        $this->holds();
    }

    /** Forty of them from above, at any slant, and some straight from above, which is a plan of the roof. */
    #[DataProvider('slanted')]
    public function testFromAboveAsWell(int $first): void
    {
        $this->begin();
        for ($seed = $first; $seed < $first + 10; ++$seed) {
            $bodies = BuildingBodies::of(Buildings::of($seed));
            mt_srand($seed);
            [$turn, $tilt] = [mt_rand(0, 3600) / 10.0, 0 === $seed % 5 ? 90.0 : mt_rand(100, 850) / 10.0];
            $to = new Point(1000.0 * cos(deg2rad($turn)), 1000.0 * sin(deg2rad($turn)));
            $this->hold(Projection::of($bodies, View::standing($turn, $tilt)), new Sight($bodies, new Point(0.0, 0.0), $to, tilt: $tilt), $seed);
        }
        $this->holds();
    }

    /** @return iterable<string, array{int}> */
    public static function slanted(): iterable
    {
        for ($k = 0; $k < 4; ++$k) {
            yield \sprintf('%d to %d', 10 * $k, 10 * $k + 9) => [1000 + 10 * $k];
        }
    }

    private function begin(): void
    {
        [$this->wrong, $this->missing, $this->lines, $this->meetings, $this->swept] = [[], [], 0, 0, 0];
    }

    private function holds(): void
    {
        self::assertGreaterThan(500, $this->lines);
        self::assertGreaterThan(250, $this->meetings);
        self::assertGreaterThan(20, $this->swept, 'Mouldings are among them.');
        self::assertSame([], $this->wrong, 'Lines that are not seen.');
        self::assertSame([], $this->missing, 'What is seen and not drawn.');
    }

    private function hold(DrawnView $view, Sight $sight, int $seed): void
    {
        foreach ($view->lines as $line) {
            if ($line->length() < 4.0 * self::BESIDE_MM) {
                continue;
            }
            $part = mt_rand(50, 950) / 1000.0;
            [$du, $dv] = [($line->to[0] - $line->from[0]) / $line->length(), ($line->to[1] - $line->from[1]) / $line->length()];
            [$u, $v] = [$line->from[0] + $part * $du * $line->length(), $line->from[1] + $part * $dv * $line->length()];
            [$nu, $nv] = [-self::BESIDE_MM * $dv, self::BESIDE_MM * $du];
            ++$this->lines;
            $this->swept += BodyKind::Swept === $line->kind ? 1 : 0;
            if (!$sight->within($u - 1.0, $v - 1.0, $u + 1.0, $v + 1.0)->differ($u + $nu, $v + $nv, $u - $nu, $v - $nv)) {
                $this->wrong[] = \sprintf('%d: %s %s at %.2f %.2f', $seed, $line->role->value, $line->body, $u, $v);
            }
        }
        foreach (self::meetings($sight) as [$u, $v]) {
            ++$this->meetings;
            if (!self::isDrawn($view, $u, $v)) {
                $this->missing[] = \sprintf('%d: %.2f %.2f', $seed, $u, $v);
            }
        }
    }

    /** @return iterable<array{float, float}> where, along random sight planes, one thing ends and another begins */
    private static function meetings(Sight $sight): iterable
    {
        [$u0, $v0, $u1, $v1] = $sight->box();
        for ($k = 0; $k < 8; ++$k) {
            [$au, $av] = [$u0 + ($u1 - $u0) * mt_rand(0, 999) / 1000.0, $v0 + ($v1 - $v0) * mt_rand(0, 999) / 1000.0];
            [$bu, $bv] = 0 === $k % 2 ? [$au, $v1 + 100.0] : [$u1 + 100.0, $av];
            [$au, $av] = 0 === $k % 2 ? [$au, $v0 - 100.0] : [$u0 - 100.0, $av];
            $at = static fn (float $t): array => [$au + ($bu - $au) * $t, $av + ($bv - $av) * $t];
            $beside = $sight->within(min($au, $bu), min($av, $bv), max($au, $bu), max($av, $bv));
            for ($i = 0; $i < 25; ++$i) {
                [$low, $high] = [$i / 25.0, ($i + 1) / 25.0];
                if (!$beside->differ(...$at($low), ...[...$at($high), true])) {
                    continue;
                }
                while (($high - $low) * max($bu - $au, $bv - $av) > 0.02) {
                    $middle = ($low + $high) / 2.0;
                    if ($beside->differ(...$at($low), ...[...$at($middle), true])) {
                        $high = $middle;
                    } else {
                        $low = $middle;
                    }
                }
                if ($beside->differ(...$at($low), ...[...$at($high), true])) {
                    yield $at($low);
                }
            }
        }
    }

    private static function isDrawn(DrawnView $view, float $u, float $v): bool
    {
        foreach ($view->lines as $line) {
            [[$au, $av], [$bu, $bv]] = [$line->from, $line->to];
            $t = max(0.0, min(1.0, (($u - $au) * ($bu - $au) + ($v - $av) * ($bv - $av)) / $line->length() ** 2));
            if (hypot($au + $t * ($bu - $au) - $u, $av + $t * ($bv - $av) - $v) < 1.0) {
                return true;
            }
        }

        return false;
    }
}
