<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Exchange;

use PHPUnit\Framework\TestCase;
use Plinth\Core\Exchange\Dxf\DxfDrawing;
use Plinth\Core\Exchange\Dxf\DxfLines;
use Plinth\Core\Exchange\Dxf\DxfText;
use Plinth\Core\Exchange\Json\JsonValue;
use Plinth\Core\Tests\Outside;

/**
 * What a DXF draws is read where it is drawn, whatever it is drawn by. Held against ezdxf, which makes the files and takes them apart.
 *
 * @phpstan-import-type Chain from DxfDrawing
 */
final class DxfLinesTest extends TestCase
{
    private string $folder;

    protected function setUp(): void
    {
        $this->folder = sys_get_temp_dir().'/dxf-'.bin2hex(random_bytes(6));
        mkdir($this->folder);
    }

    protected function tearDown(): void
    {
        foreach (new \FilesystemIterator(
            $this->folder,
            \FilesystemIterator::CURRENT_AS_PATHNAME | \FilesystemIterator::SKIP_DOTS,
        ) as $file) {
            unlink((string) $file);
        }
        rmdir($this->folder);
    }

    public function testEverythingThatDrawsLinesIsReadAsTheReferenceLibraryReadsIt(): void
    {
        $cases = Outside::ask('dxf-curves.py', ['folder' => $this->folder])['cases'];
        self::assertIsArray($cases);
        self::assertCount(20, $cases);
        foreach ($cases as $name => $case) {
            self::assertIsArray($case);
            self::assertIsString($case['file']);
            $read = DxfLines::read($case['file']);
            self::assertSame(4, $read->unit, (string) $name);
            self::assertIsArray($case['chains']);
            $theirs = array_map(self::chain(...), array_values($case['chains']));
            // A chord of 3° lies 0.034 % of the radius off; lengths come out 0.05 % short.
            $size = max(self::box($theirs)[2] - self::box($theirs)[0], 1.0);
            self::assertEqualsWithDelta(self::box($theirs), self::box($read->chains), 0.0008 * $size, (string) $name);
            self::assertEqualsWithDelta(self::length($theirs), self::length($read->chains), 0.002 * self::length($theirs), (string) $name);
            self::assertLessThan(0.0015 * $size, self::furthest($read->chains, $theirs), (string) $name);
            self::assertLessThan(0.0015 * $size, self::furthest($theirs, $read->chains), (string) $name);
        }
    }

    /**
     * Baselines of lines of letters against those of ezdxf 1.0, which takes letters as wide as they are high; the way they run all the same; it
     * has lines 1.667 heights apart, which is five thirds.
     */
    public function testLettersStandWhereTheReferenceLibraryPutsThem(): void
    {
        $theirs = JsonValue::of(Outside::ask('dxf-texts.py', ['folder' => $this->folder]));
        $read = DxfLines::read($theirs->get('file')->text())->texts;
        $multi = $theirs->get('lines')->items();
        $lines = array_merge(...array_map(static fn (JsonValue $m): array => $m->get('lines')->items(), $multi));
        self::assertCount(9, $multi);
        foreach ([...$theirs->get('texts')->items(), ...$lines] as $their) {
            [[$x1, $y1], [$x2, $y2]] = [$their->get('from')->pair(), $their->get('to')->pair()];
            $is = array_filter($read, static function (DxfText $t) use ($their, $x1, $y1, $x2, $y2): bool {
                $part = ['start' => 0.0, 'middle' => 0.5, 'end' => 1.0][$t->anchor];

                return $t->text === $their->get('text')->text()
                    && abs($t->height - $their->get('height')->number()) < 1e-6
                    && hypot($t->x - $x1 - $part * ($x2 - $x1), $t->y - $y1 - $part * ($y2 - $y1)) < 0.002 * $t->height
                    && abs(sin($t->turnRad - atan2($y2 - $y1, $x2 - $x1))) < 1e-9;
            });
            self::assertCount(1, $is, \sprintf('%s from %.2f, %.2f to %.2f, %.2f', $their->get('text')->text(), $x1, $y1, $x2, $y2));
        }
        $texts = array_map(static fn (DxfText $t): string => $t->text, $read);
        self::assertNotContains('not seen', $texts);
        foreach ($multi as $m) {
            foreach ($m->get('plain')->items() as $plain) {
                self::assertContains($plain->text(), $texts);
            }
        }
    }

    public function testWhatDoesNotShowIsLeftOut(): void
    {
        $layers = "0\nSECTION\n2\nTABLES\n0\nTABLE\n2\nLAYER\n0\nLAYER\n2\nseen\n70\n0\n62\n7\n0\nLAYER\n2\noff\n70\n0\n62\n-7\n0\nLAYER\n2\nfrozen\n70\n1\n62\n7\n0\nENDTAB\n0\nENDSEC\n";
        $line = static fn (string $layer, int $x, string $more = ''): string => "0\nLINE\n8\n$layer\n{$more}10\n$x\n20\n0\n11\n$x\n21\n5\n";
        $read = $this->read(
            $layers,
            $line('seen', 1).$line('off', 2).$line('frozen', 3).$line('seen', 4, "60\n1\n").$line('seen', 5, "67\n1\n"),
        );
        self::assertSame([[[1.0, 0.0], [1.0, 5.0]]], $read->chains, 'Layers off and frozen, what is invisible, and paper beside a model.');
        self::assertSame(
            [[[5.0, 0.0], [5.0, 5.0]]],
            $this->read($layers, $line('seen', 5, "67\n1\n"))->chains,
            'Paper where there is nothing else.',
        );
    }

    public function testAHatchGivesItsEdges(): void
    {
        $path = "0\nHATCH\n8\n0\n10\n0\n20\n0\n30\n0\n2\nANSI31\n70\n0\n71\n0\n91\n2\n92\n2\n72\n1\n73\n1\n93\n2\n10\n0\n20\n0\n42\n1\n10\n10\n20\n0\n42\n0\n97\n0\n92\n0\n93\n2\n72\n1\n10\n50\n20\n0\n11\n60\n21\n0\n72\n2\n10\n55\n20\n0\n40\n5\n50\n0\n51\n180\n73\n1\n97\n0\n75\n0\n76\n1\n52\n45\n78\n1\n53\n45\n43\n9\n44\n9\n98\n0\n";
        $read = $this->read('', $path);
        self::assertCount(3, $read->chains);
        self::assertEqualsWithDelta([0.0, -5.0, 60.0, 5.0], self::box($read->chains), 0.01);
        self::assertEqualsWithDelta(5 * \M_PI + 10 + 10 + 5 * \M_PI, self::length($read->chains), 0.05);
    }

    /** Blocks of blocks multiply; what comes of it stays bounded, in time too. */
    public function testWhatMultipliesIsCutOff(): void
    {
        $blocks = "0\nSECTION\n2\nBLOCKS\n0\nBLOCK\n2\nb0\n0\nLINE\n8\n0\n10\n0\n20\n0\n11\n1\n21\n1\n0\nENDBLK\n";
        for ($i = 1; $i < 12; ++$i) {
            $blocks .= "0\nBLOCK\n2\nb$i\n".str_repeat(
                "0\nINSERT\n8\n0\n2\nb".($i - 1)."\n10\n0\n20\n0\n70\n30000\n71\n30000\n44\n1\n45\n1\n",
                10,
            )."0\nENDBLK\n";
        }
        $read = $this->read($blocks."0\nENDSEC\n", "0\nINSERT\n8\n0\n2\nb11\n10\n0\n20\n0\n");
        self::assertLessThanOrEqual(DxfLines::MOST, array_sum(array_map(\count(...), $read->chains)));
        $self = "0\nSECTION\n2\nBLOCKS\n0\nBLOCK\n2\nb\n0\nLINE\n8\n0\n10\n0\n20\n0\n11\n1\n21\n1\n".str_repeat(
            "0\nINSERT\n8\n0\n2\nb\n10\n1\n20\n0\n",
            5,
        )."0\nENDBLK\n0\nENDSEC\n";
        self::assertLessThanOrEqual(DxfLines::MOST, \count($this->read($self, "0\nINSERT\n8\n0\n2\nb\n10\n0\n20\n0\n")->chains));
    }

    /** A torn, scribbled-over or lying file gives what can be read of it, or nothing; never an error. */
    public function testWhateverComesIsRead(): void
    {
        mt_srand(11);
        $cases = Outside::ask('dxf-curves.py', ['folder' => $this->folder])['cases'];
        self::assertIsArray($cases);
        $tried = 0;
        foreach ($cases as $case) {
            self::assertIsArray($case);
            self::assertIsString($case['file']);
            $lines = (array) file($case['file']);
            for ($i = 0; $i < 20; ++$i) {
                $torn = $lines;
                for ($k = 0; $k < 30; ++$k) {
                    $torn[mt_rand(0, \count($torn) - 1)] = [
                        "1e400\n", "-1\n", "nan\n", "0\n", "SPLINE\n", "\xFF\xFE\n", "99999999999999999999\n", '',
                    ][mt_rand(0, 7)];
                }
                file_put_contents($this->folder.'/torn', implode('', \array_slice($torn, 0, mt_rand(1, \count($torn)))));
                foreach (DxfLines::read($this->folder.'/torn')->chains as $chain) {
                    ++$tried;
                    self::assertGreaterThan(1, \count($chain));
                }
            }
        }
        self::assertGreaterThan(50, $tried);
    }

    private function read(string $before, string $entities): DxfDrawing
    {
        file_put_contents($this->folder.'/a.dxf', $before."0\nSECTION\n2\nENTITIES\n".$entities."0\nENDSEC\n0\nEOF\n");

        return DxfLines::read($this->folder.'/a.dxf');
    }

    /** @return Chain */
    private static function chain(mixed $points): array
    {
        self::assertIsArray($points);
        $chain = [];
        foreach ($points as $p) {
            self::assertIsArray($p);
            self::assertIsNumeric($p[0]);
            self::assertIsNumeric($p[1]);
            $chain[] = [(float) $p[0], (float) $p[1]];
        }
        self::assertNotEmpty($chain);

        return $chain;
    }

    /**
     * @param list<Chain> $chains
     *
     * @return array{float, float, float, float}
     */
    private static function box(array $chains): array
    {
        self::assertNotEmpty($chains);
        $all = array_merge(...$chains);

        return [min(array_column($all, 0)), min(array_column($all, 1)), max(array_column($all, 0)), max(array_column($all, 1))];
    }

    /** @param list<Chain> $chains */
    private static function length(array $chains): float
    {
        $sum = 0.0;
        foreach ($chains as $chain) {
            for ($i = 1; $i < \count($chain); ++$i) {
                $sum += hypot($chain[$i][0] - $chain[$i - 1][0], $chain[$i][1] - $chain[$i - 1][1]);
            }
        }

        return $sum;
    }

    /**
     * How far the corners of the first lie off the lines of the second.
     *
     * @param list<Chain> $of
     * @param list<Chain> $from
     */
    private static function furthest(array $of, array $from): float
    {
        $furthest = 0.0;
        foreach (array_merge(...$of) as [$x, $y]) {
            $least = \INF;
            foreach ($from as $chain) {
                for ($i = 1; $i < \count($chain); ++$i) {
                    [[$ax, $ay], [$bx, $by]] = [$chain[$i - 1], $chain[$i]];
                    $d2 = ($bx - $ax) ** 2 + ($by - $ay) ** 2;
                    $t = $d2 > 0.0 ? max(0.0, min(1.0, (($x - $ax) * ($bx - $ax) + ($y - $ay) * ($by - $ay)) / $d2)) : 0.0;
                    $least = min($least, hypot($x - $ax - $t * ($bx - $ax), $y - $ay - $t * ($by - $ay)));
                }
            }
            $furthest = max($furthest, $least);
        }

        return $furthest;
    }
}
