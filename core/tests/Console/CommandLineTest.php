<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Console;

use PHPUnit\Framework\TestCase;

/** The program as scripts use it: exit codes, one JSON document, errors with code, words and place. */
final class CommandLineTest extends TestCase
{
    public function testALengthIsRead(): void
    {
        self::assertEqualsWithDelta([0, ['mm' => 3543.3, 'stepMm' => 12.7]], $this->plinth(['length', "11'-7 1/2\""]), 1e-9);
        self::assertEqualsWithDelta([0, ['mm' => 3657.6, 'stepMm' => 304.8]], $this->plinth(['length', '12', '--unit', 'ft']), 1e-9);
    }

    public function testAFitSaysWhatItIsWorth(): void
    {
        [$code, $fit] = $this->plinth(['fit'], ['size' => [3000, 2000], 'model' => 'auto', 'lengths' => [
            ['a' => [100, 100], 'b' => [2100, 100], 'mm' => 10000, 'sigmaMm' => 1.5], ['a' => [100, 100], 'b' => [100, 1600], 'text' => '7.5 m'], ['a' => [2100, 100], 'b' => [100, 1600], 'mm' => 12500, 'check' => true],
        ], 'grid' => [['a' => [100, 100], 'b' => [2100, 100], 'axis' => 'x']]]);
        self::assertSame(0, $code);
        self::assertEqualsWithDelta(5.0, $fit['mmPerPixel'], 1e-9);
        self::assertSame('similar', $fit['model']);
        self::assertSame(1, $fit['degreesOfFreedom']);
        self::assertIsArray($fit['lengths']);
        self::assertIsArray($fit['lengths'][2]);
        self::assertEqualsWithDelta(0.0, $fit['lengths'][2]['residualMm'], 1e-6);
        self::assertGreaterThan(0.0, $fit['lengths'][2]['plusMinusMm']);
    }

    public function testBareFiguresAreTakenAsRoundedToTheStepTheyShare(): void
    {
        $fit = function (float ...$figures): mixed {
            $lengths = [];
            foreach (array_values($figures) as $i => $mm) {
                $lengths[] = ['a' => [100, 100 + $i], 'b' => [100 + $mm / 5, 100 + $i], 'mm' => $mm, 'sigmaPx' => 0.01];
            }

            return $this->plinth(['fit'], ['size' => [3000, 2000], 'lengths' => $lengths])[1]['plusMinusMmPer10m'];
        };
        // Three figures rounded to q: ± over 10 m is 2 · q/√12 / √3, the picks being all but exact.
        self::assertEqualsWithDelta(2 * 50 / sqrt(36), $fit(10000.0, 10050.0, 9950.0), 0.3);
        self::assertEqualsWithDelta(2 * 10 / sqrt(36), $fit(10000.0, 10010.0, 9990.0), 0.3);
        self::assertLessThan(0.3, $fit(10000.123, 10000.456, 10000.789), 'Figures without a step are exact.');
    }

    public function testWrongInputIsAnsweredWithExitTwo(): void
    {
        foreach ([
            [['length', 'abc'], null, 'unreadable-length', '0'],
            [['derive'], ['format' => 'zesty-plinth/plan', 'version' => 1, 'units' => 'ft'], 'unreadable-document', 'units'],
            [['fit'], ['size' => [10, 10], 'lengths' => [['a' => [1, 1], 'b' => [1, 1], 'mm' => 3]]], 'coincident-picks', 'lengths/0'],
            [['fit'], ['size' => [10, 10]], 'under-determined', ''],
            [['fit'], ['size' => [10, 10], 'model' => 'bent'], 'unreadable-document', 'model'],
            [['fly'], null, 'usage', 'fly'],
            [['derive', '--in', '/nowhere.json'], null, 'usage', 'in'],
        ] as [$arguments, $input, $reason, $at]) {
            [$code, $answer] = $this->plinth($arguments, $input);
            self::assertSame(2, $code);
            self::assertIsArray($answer['error']);
            self::assertSame([$reason, $at], [$answer['error']['code'], $answer['error']['at']]);
        }
    }

    /**
     * @param list<string> $arguments
     * @param array<string, mixed>|null $input
     *
     * @return array{int, array<mixed>}
     */
    private function plinth(array $arguments, ?array $input = null): array
    {
        $process = proc_open([\PHP_BINARY, '-d', 'pcov.enabled=0', \dirname(__DIR__, 3).'/bin/plinth', ...$arguments], [['pipe', 'r'], ['pipe', 'w'], ['pipe', 'w']], $pipes);
        self::assertIsResource($process);
        fwrite($pipes[0], null === $input ? '' : json_encode($input, \JSON_THROW_ON_ERROR));
        fclose($pipes[0]);
        $out = (string) stream_get_contents($pipes[1]);
        $code = proc_close($process);
        $answer = json_decode($out, true, 64, \JSON_THROW_ON_ERROR);
        self::assertIsArray($answer);

        return [$code, $answer];
    }
}
