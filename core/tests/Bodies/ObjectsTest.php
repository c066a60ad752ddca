<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Bodies;

use PHPUnit\Framework\TestCase;
use Plinth\Core\Bodies\Body;
use Plinth\Core\Bodies\BuildingBodies;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Objects\ObjectForm;
use Plinth\Core\Objects\ObjectKind;
use Plinth\Core\Plan\Model\PlacedObject;
use Plinth\Core\Plan\Model\Plan;
use Plinth\Core\Plan\Model\Storey;

/** Whatever stands in a room is as large as it is said to be, from above, from the front and as a body. */
final class ObjectsTest extends TestCase
{
    public function testEachKindFillsItsSizeAndNoMore(): void
    {
        foreach (ObjectKind::cases() as $kind) {
            [$width, $depth, $height, $base] = $kind->usual();
            $form = new ObjectForm($kind, $width, $depth, $height);
            $reach = static fn (int $i): array => [min(\INF, ...array_column($form->boxes, $i)), max(-\INF, ...array_column($form->boxes, $i + 3))];
            self::assertEqualsWithDelta([-$width / 2.0, $width / 2.0], $reach(0), 130.0, $kind->value);
            self::assertEqualsWithDelta([-$depth / 2.0, $depth / 2.0], $reach(1), 130.0, $kind->value);
            self::assertEqualsWithDelta([0.0, $height], $reach(2), 1e-9, $kind->value);
            self::assertGreaterThanOrEqual(0.0, $base);
            self::assertCount(\count($form->boxes), $form->plan());
            self::assertCount(\count($form->boxes), $form->front());
            $body = self::bodies(new PlacedObject('o', $kind->value, new Point(0.0, 0.0), 0.0, $width, $depth, $height))[0];
            self::assertSame([], $body->mesh()->openEdges(), $kind->value);
            self::assertLessThanOrEqual($width * $depth * $height + 1.0, $body->mesh()->volume(), $kind->value);
        }
    }

    public function testATableIsItsTopAndFourLegs(): void
    {
        $mesh = self::bodies(new PlacedObject('t', 'table', new Point(500.0, 700.0), 90.0, 1400.0, 800.0, 740.0, 100.0))[0]->mesh();
        // 40 thick on legs of 60 × 60 up to 94 %; the rest between is where they meet (arithmetic).
        self::assertEqualsWithDelta(1400.0 * 800.0 * 40.0 + 4 * 60.0 * 60.0 * 0.94 * 740.0, $mesh->volume(), 4 * 60.0 * 60.0 * 5.0);
        $xs = array_column($mesh->vertices, 0);
        $zs = array_column($mesh->vertices, 2);
        // Turned by a right angle it is as wide as it was deep.
        self::assertEqualsWithDelta([100.0, 900.0, 100.0, 840.0], [min(\INF, ...$xs), max(-\INF, ...$xs), min(\INF, ...$zs), max(-\INF, ...$zs)], 1e-9);
    }

    public function testWhatIsTypedVerySmallIsStillABody(): void
    {
        foreach (ObjectKind::cases() as $kind) {
            $mesh = self::bodies(new PlacedObject('o', $kind->value, new Point(0.0, 0.0), 0.0, 20.0, 20.0, 20.0))[0]->mesh();
            self::assertSame([], $mesh->openEdges(), $kind->value);
            self::assertGreaterThan(0.0, $mesh->volume(), $kind->value);
        }
    }

    /** @return list<Body> */
    private static function bodies(PlacedObject $object): array
    {
        return BuildingBodies::of(new Plan([new Storey('s', '', 0.0, 2700.0, [], objects: [$object])]));
    }
}
