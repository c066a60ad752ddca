<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Exchange;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Plinth\Core\Exchange\PostScript\PageLines;
use Plinth\Core\Exchange\Svg\SvgLines;

/** Lines of vector files are read where they are drawn, through every transform. */
final class LinesTest extends TestCase
{
    /** @return iterable<string, array{string, list<list<float>>}> W3C SVG 1.1, chapters 7 to 9 */
    public static function pictures(): iterable
    {
        yield 'a line in nested groups' => [
            '<g transform="translate(10,20)"><g transform="rotate(90)"><line x1="0" y1="0" x2="5" y2="0"/></g></g>',
            [[10, 20, 10, 25]],
        ];
        yield 'rotation about a point' => ['<line transform="rotate(90 10 10)" x1="10" y1="10" x2="20" y2="10"/>', [[10, 10, 10, 20]]];
        yield 'a matrix and a list of transforms' => [
            '<line transform="matrix(2 0 0 3 1 1) scale(2)" x1="1" y1="1" x2="2" y2="1"/>',
            [[5, 7, 9, 7]],
        ];
        yield 'a rectangle' => ['<rect x="1" y="2" width="3" height="4"/>', [[1, 2, 4, 2], [4, 2, 4, 6], [4, 6, 1, 6], [1, 6, 1, 2]]];
        yield 'polyline and polygon' => [
            '<polyline points="0,0 1,0 1,1"/><polygon points="0 0 1 0 1 1"/>',
            [[0, 0, 1, 0], [1, 0, 1, 1], [0, 0, 1, 0], [1, 0, 1, 1], [1, 1, 0, 0]],
        ];
        yield 'absolute and relative path, closed' => ['<path d="M1 1 L3 1 h2 v2 H1 z m1-1l1.5.5"/>', [
            [1, 1, 3, 1], [3, 1, 5, 1], [5, 1, 5, 3], [5, 3, 1, 3], [1, 3, 1, 1], [2, 0, 3.5, 0.5],
        ]];
        yield 'further points after a move are lines' => ['<path d="M0 0 1 0 1e1-2"/>', [[0, 0, 1, 0], [1, 0, 10, -2]]];
        yield 'curves that are no arcs give their ends' => ['<path d="M0 0 C1 1 2 1 3 0 A1 2 0 0 1 5 0 Q6 2 7 0"/>', [
            [0, 0, 0, 0], [3, 0, 3, 0], [3, 0, 3, 0], [5, 0, 5, 0], [5, 0, 5, 0], [7, 0, 7, 0],
        ]];
        yield 'text, symbols and definitions are no lines' => [
            '<defs><line x2="9"/></defs><symbol><line x2="9"/></symbol><text><tspan>x</tspan></text><clipPath><rect width="9" height="9"/></clipPath>',
            [],
        ];
    }

    /**
     * An arc is told by how far it rises over its chord: of radius 5 over a chord of 6 by 1, the large one by 9; a quarter of the unit circle
     * by 1 − √½, as the curve of the third degree that stands for it has it with 4/3 (√2 − 1). What is stretched is no arc any more.
     */
    public function testArcsAreToldByTheirRise(): void
    {
        $k = 4.0 / 3.0 * (\M_SQRT2 - 1.0);
        $curve = \sprintf('C1 %.12F %.12F 1 0 1', $k, $k);
        $rises = static fn (string $body): array => array_map(
            static fn (array $l): float => $l[5] ?? 0.0,
            SvgLines::read('<svg xmlns="http://www.w3.org/2000/svg">'.$body.'</svg>')['lines'],
        );
        foreach ([
            ['<path d="M0 0 A5 5 0 0 0 6 0"/>', [1.0]], ['<path d="M0 0 A5 5 0 0 1 6 0"/>', [-1.0]],
            ['<path d="M0 0 a5 5 0 1 1 6 0"/>', [-9.0]], ['<path d="M0 0 A1 1 0 0 1 6 0"/>', [-3.0]],
            ["<path d=\"M1 0 $curve\"/>", [\M_SQRT1_2 - 1.0]],
            ['<path transform="translate(3 4) rotate(30) scale(2)" d="M0 0 A5 5 0 0 0 6 0"/>', [2.0]],
            ['<path transform="scale(1 -1)" d="M0 0 A5 5 0 0 0 6 0"/>', [-1.0]],
            ['<path transform="scale(1 2)" d="M0 0 A5 5 0 0 0 6 0"/>', [0.0, 0.0]],
        ] as [$body, $expected]) {
            self::assertEqualsWithDelta($expected, $rises($body), 1e-9, $body);
        }
        $page = \sprintf("%%%%BeginPageSetup\n[0 2 -2 0 0 0] cm\n1 0 m\n1 %.9F %.9F 1 0 1 c\n0 3 m\n1 3 2 3 v\nS\n", $k, $k);
        $lines = PageLines::read($page);
        self::assertEqualsWithDelta([[0.0, 2.0, -2.0, 0.0], 2.0 * (\M_SQRT1_2 - 1.0)], [self::ends($lines[0]), $lines[0][5] ?? 0.0], 1e-6);
        self::assertCount(3, $lines, 'A curve that is straight is its two ends.');
    }

    /** @param list<list<float>> $expected */
    #[DataProvider('pictures')]
    public function testSvg(string $body, array $expected): void
    {
        $found = SvgLines::read('<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 10 20">'.$body.'</svg>');
        self::assertSame([0.0, 0.0, 10.0, 20.0], $found['viewBox']);
        self::assertEqualsWithDelta($expected, array_map(self::ends(...), $found['lines']), 1e-12);
    }

    public function testWhatIsNoSvgHasNoLines(): void
    {
        foreach (['<svg><line x2=', 'no xml', '', '<svg/>'] as $text) {
            self::assertSame([], SvgLines::read($text)['lines']);
        }
    }

    /** Operators as in ISO 32000-1, table 59, through the page's own turn. */
    public function testAPageOfPostScript(): void
    {
        $page = <<<'PS'
            1 2 m
            3 4 l
            %%BeginPageSetup
            270 rotate
            -576 0 translate
            0 0 576 768 re W
            %%EndPageSetup
            q
            [2 0 0 2 10 10] cm
            0 0 m
            5 0 l
            5 5 l
            h
            S
            Q
            100 200 50 20 re
            f
            1 1 m
            2 2 3 2 4 1 c
            S
            (text 5 5 l) Tj
            PS;
        // A quarter turn: (x, y) shows at (y, 576 − x).
        $line = static fn (float $x1, float $y1, float $x2, float $y2): array => [$y1, 576 - $x1, $y2, 576 - $x2];
        self::assertEqualsWithDelta([
            $line(10, 10, 20, 10), $line(20, 10, 20, 20), $line(20, 20, 10, 10),
            $line(100, 200, 150, 200), $line(150, 200, 150, 220), $line(150, 220, 100, 220), $line(100, 220, 100, 200),
            $line(1, 1, 1, 1), $line(4, 1, 4, 1),
        ], array_map(self::ends(...), $lines = PageLines::read($page)), 1e-9);
        // Stroked, filled, stroked again: by their pens.
        self::assertSame([0, 0, 0, 1, 1, 1, 1, 2, 2], array_column($lines, 4));
        self::assertSame([], PageLines::read('no page'));
    }

    /** What is drawn alike has one pen, wherever it says so: on itself, round it, or in its style. */
    public function testLinesSayWithWhichPenTheyWereDrawn(): void
    {
        $svg = <<<'SVG'
            <svg xmlns="http://www.w3.org/2000/svg">
              <g stroke="black" stroke-width="0.5"><line x2="1"/><line x2="2" stroke-width="0.25"/><g transform="scale(0.5)"><line x2="3" style="stroke-width: 1"/></g></g>
              <path d="M0 0H1V1Z"/><rect width="4" height="4" style="fill:#444"/><line x2="5" class="wall" stroke="black"/>
            </svg>
            SVG;
        self::assertSame([0, 1, 0, 2, 2, 2, 3, 3, 3, 3, 4], array_column(SvgLines::read($svg)['lines'], 4));
        $page = "%%BeginPageSetup\n0.5 w\n0 0 m\n1 0 l\nS\n[0.4] SC\n0 0 m\n1 0 l\nS\n[0] SC\n2 w\nq\n[0.25 0 0 0.25 0 0] cm\n0 0 m\n1 0 l\nS\n0 0 m\n8 0 l\nW n\n";
        self::assertSame([0, 1, 0], array_column(PageLines::read($page), 4), 'What only cuts off is no line.');
    }

    /**
     * @param array{float, float, float, float, int} $line
     *
     * @return list<float>
     */
    private static function ends(array $line): array
    {
        return \array_slice($line, 0, 4);
    }
}
