<?php

declare(strict_types=1);

namespace Plinth\Server\Tests;

use PHPUnit\Framework\TestCase;
use Plinth\Server\Change\Kinds;
use Plinth\Server\Change\ProjectRow;
use Plinth\Server\Change\Refers;
use Plinth\Server\Change\RowKinds;
use Plinth\Server\Change\WhenGone;
use Plinth\Server\Plan\Node;
use Plinth\Server\Plan\Opening;
use Plinth\Server\Plan\Wall;
use Plinth\Server\Project\Storey;
use Plinth\Server\Source\Drawing;
use Plinth\Server\Source\Page;

/** What kinds of rows say of themselves and of each other is all that the kernel of changes knows of them. */
final class KindsTest extends TestCase
{
    public function testEachKindComesAfterThoseThatItNames(): void
    {
        $seen = [];
        foreach (Registered::kinds()->classes as $class) {
            foreach ($class::refers() as $by) {
                self::assertTrue($by->to === $class || isset($seen[$by->to]), "$class names {$by->to}.");
            }
            $seen[$class] = true;
        }
        self::assertCount(48, $seen);
    }

    public function testWhatNamesAKindIsKnownLatestFirstSoThatItGoesFirst(): void
    {
        $kinds = Registered::kinds();
        $order = array_flip(array_values($kinds->classes));
        foreach ($kinds->classes as $class) {
            $places = array_map(static fn (array $r): int => $order[$r[0]], $kinds->referrers($class));
            $sorted = $places;
            rsort($sorted);
            self::assertSame($sorted, $places, $class);
        }
        self::assertSame(
            [Opening::class],
            array_values(
                array_filter(
                    array_map(static fn (array $r): string => $r[0], $kinds->referrers(Wall::class)),
                    static fn (string $c): bool => Opening::class === $c,
                ),
            ),
        );
    }

    public function testWhatBecomesOfARowIsSaidWhereItNamesTheOther(): void
    {
        $says = static function (string $class, string $field): array {
            self::assertTrue(is_subclass_of($class, ProjectRow::class));
            foreach ($class::refers() as $by) {
                if ($by->field === $field) {
                    return [$by->then, $by->alone];
                }
            }
            self::fail("$class.$field names nothing.");
        };
        self::assertSame([WhenGone::GoesAlong, false], $says(Opening::class, 'wall'));
        self::assertSame([WhenGone::LetsGo, false], $says(Node::class, 'drawing'));
        self::assertSame([WhenGone::GoesAlong, false], $says(Drawing::class, 'storey'));
        self::assertSame([WhenGone::Holds, false], $says(Storey::class, 'alternativeOf'));
        self::assertSame([WhenGone::Holds, true], $says(Wall::class, 'fromNode'), 'A corner goes with the last wall that needs it.');
        self::assertSame([WhenGone::GoesAlong, true], $says(Page::class, 'source'), 'A source goes with its last page.');
    }

    public function testARowThatNamesItsOwnKindMakesNoRing(): void
    {
        self::assertContains(Storey::class, array_map(static fn (Refers $r): string => $r->to, Storey::refers()));
    }

    public function testNamesAreThoseOfTheContractAndEachIsTakenOnce(): void
    {
        $kinds = Registered::kinds();
        self::assertSame(Wall::class, $kinds->named('wall'));
        self::assertSame('listedRoom', array_search($kinds->named('listedRoom'), $kinds->classes, true));
        $this->expectException(\LogicException::class);
        $kinds->named('turret');
    }

    public function testKindsThatAreRegisteredWithoutThoseTheyNameStandAllTheSame(): void
    {
        $only = new Kinds([new class implements RowKinds {
            public function rows(): array
            {
                return [Wall::class, Node::class];
            }
        }]);
        self::assertSame(['node', 'wall'], array_keys($only->classes), 'Each after those that it names, whatever the order they came in.');
    }
}
