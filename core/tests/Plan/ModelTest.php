<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Plan;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Plan\Model\Column;
use Plinth\Core\Plan\Model\Divider;
use Plinth\Core\Plan\Model\Exception\UnusableValue;
use Plinth\Core\Plan\Model\Opening;
use Plinth\Core\Plan\Model\OpeningKind;
use Plinth\Core\Plan\Model\Room;
use Plinth\Core\Plan\Model\Storey;
use Plinth\Core\Plan\Model\Wall;

final class ModelTest extends TestCase
{
    /** Nothing is made of a measure that cannot be, and it is said of what, and where. */
    #[DataProvider('parts')]
    public function testPartsOfAPlanHoldThemselvesToMeasuresThatCanBe(string $at, \Closure $make): void
    {
        foreach ([\NAN, \INF, -\INF, 2e9, -2e9] as $value) {
            try {
                $make($value);
                self::fail("$at takes $value.");
            } catch (UnusableValue $e) {
                self::assertSame($at, $e->at());
                self::assertSame('unusable-value', $e->why());
                self::assertStringContainsString($at, $e->getMessage());
            }
        }
    }

    /** @return iterable<string, array{string, \Closure(float): object}> */
    public static function parts(): iterable
    {
        $o = new Point(0.0, 0.0);
        $e = new Point(4000.0, 0.0);
        $made = [
            'wall w' => static fn (float $v): Wall => new Wall('w', new Point($v, 0.0), $e, 100.0),
            'wall w/thickness' => static fn (float $v): Wall => new Wall('w', $o, $e, $v),
            'wall w/height' => static fn (float $v): Wall => new Wall('w', $o, $e, 100.0, height: $v),
            'wall w/rise' => static fn (float $v): Wall => new Wall('w', $o, $e, 100.0, rise: $v),
            'opening d/offset' => static fn (float $v): Opening => new Opening('d', 'w', OpeningKind::Door, $v, 900.0),
            'opening d/width' => static fn (float $v): Opening => new Opening('d', 'w', OpeningKind::Door, 0.0, $v),
            'opening d/sill' => static fn (float $v): Opening => new Opening('d', 'w', OpeningKind::Door, 0.0, 900.0, $v),
            'opening d/height' => static fn (float $v): Opening => new Opening('d', 'w', OpeningKind::Door, 0.0, 900.0, 0.0, $v),
            'column c' => static fn (float $v): Column => new Column('c', new Point(0.0, $v), 300.0, 300.0),
            'column c/width' => static fn (float $v): Column => new Column('c', $o, $v, 300.0),
            'column c/depth' => static fn (float $v): Column => new Column('c', $o, 300.0, $v),
            'room r' => static fn (float $v): Room => new Room('r', 'Hall', '1', new Point($v, $v)),
            'room r/height' => static fn (float $v): Room => new Room('r', 'Hall', '1', $o, $v),
            'divider v' => static fn (float $v): Divider => new Divider('v', $o, new Point($v, 0.0)),
            'storey s/elevation' => static fn (float $v): Storey => new Storey('s', 'Ground', $v, 2700.0, []),
            'storey s/height' => static fn (float $v): Storey => new Storey('s', 'Ground', 0.0, $v, []),
        ];
        foreach ($made as $at => $make) {
            yield $at => [$at, $make];
        }
    }

    public function testWhatLiesAtTheFarEndOfANationalGridIsTaken(): void
    {
        $wall = new Wall('w', new Point(-Point::FURTHEST_MM, Point::FURTHEST_MM), new Point(650e6, 220e6), Wall::THICKEST_MM);
        self::assertGreaterThan(0.0, $wall->length());
    }
}
