<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Plan;

use PHPUnit\Framework\TestCase;
use Plinth\Core\Plan\Derivation\Derivation;
use Plinth\Core\Plan\Editing\Shift;
use Plinth\Core\Plan\Model\Line;
use Plinth\Core\Plan\Model\Opening;
use Plinth\Core\Plan\Model\OpeningKind;
use Plinth\Core\Plan\Model\Wall;

/**
 * Plans in the octametric order of DIN 4172 (from memory): coordinating sizes are multiples of 125 mm; built with joints of
 * 10 mm, outer sizes are 10 less, clear sizes and openings 10 more, and projecting ones the same. Walls of 115, 240 and
 * 365 are outer sizes of one, two and three eighths of a metre. Clear door openings 635, 760, 885 and 1010 are those of
 * DIN 18100 (from memory).
 */
final class StandardSizesTest extends TestCase
{
    private const MODULE = 125.0;
    private const JOINT = 10.0;
    private const DOORS = [635.0, 760.0, 885.0, 1010.0];

    public function testRoomsAndOuterFacesOfAnOctametricPlanFallOnTheStandardsSizes(): void
    {
        foreach ([115.0, 240.0, 365.0] as $thickness) {
            self::assertSame(0.0, fmod($thickness + self::JOINT, self::MODULE));
            for ($n = 16; $n <= 40; $n += 8) {
                // Clear n eighths and a joint: on centre lines a wall more.
                $clear = $n * self::MODULE + self::JOINT;
                $c = $clear + $thickness;
                $walls = [
                    Plans::wall('s', 0, 0, $c, 0, $thickness),
                    Plans::wall('e', $c, 0, $c, $c, $thickness),
                    Plans::wall('n', $c, $c, 0, $c, $thickness),
                    Plans::wall('w', 0, $c, 0, 0, $thickness),
                ];
                $derived = Derivation::of(Plans::storey($walls));
                self::assertEqualsWithDelta([$clear, $clear], $derived->regions[0]->clear, 1e-6);
                self::assertEqualsWithDelta($clear ** 2, $derived->regions[0]->netAreaMm2, 1e-3);
                $outer = Shift::distance($walls[0], Line::Right, $walls[2], Line::Right);
                self::assertEqualsWithDelta(
                    0.0,
                    fmod($outer + self::JOINT, self::MODULE),
                    1e-6,
                    'An outer size is a joint short of the module.',
                );
            }
        }
    }

    public function testStandardDoorsFitBetweenJambsOnTheModule(): void
    {
        $wall = new Wall(
            'w',
            Plans::wall('w', 0, 0, 8 * 1000.0 - self::JOINT, 0)->from,
            Plans::wall('w', 0, 0, 8 * 1000.0 - self::JOINT, 0)->to,
            240.0,
        );
        $openings = [];
        $at = 5 * self::MODULE - self::JOINT;
        foreach (self::DOORS as $width) {
            self::assertSame(0.0, fmod($width - self::JOINT, self::MODULE), 'An opening is a joint wider than the module.');
            $openings[] = new Opening("d$width", 'w', OpeningKind::Door, $at, $width, 0.0, 2005.0);
            // Between two openings stands masonry of whole eighths, a joint short.
            $at += $width + 5 * self::MODULE - self::JOINT;
        }
        $derived = Derivation::of(Plans::storey([$wall], $openings));
        self::assertSame([], $derived->findings);
        foreach (self::DOORS as $width) {
            [[$x1], [$x2]] = $derived->openings["d$width"];
            self::assertEqualsWithDelta($width, $x2 - $x1, 1e-9);
            self::assertEqualsWithDelta(0.0, fmod($x1 + self::JOINT, self::MODULE), 1e-9);
        }
    }
}
