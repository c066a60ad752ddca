<?php

declare(strict_types=1);

namespace Plinth\Core\Console;

use Plinth\Core\Exchange\Dxf\DxfWriter;
use Plinth\Core\Exchange\Exception\UnreadableDocument;
use Plinth\Core\Exchange\FitDocument\FitReader;
use Plinth\Core\Exchange\FitDocument\FitWriter;
use Plinth\Core\Exchange\Json\JsonValue;
use Plinth\Core\Exchange\PlanDocument\PlanReader;
use Plinth\Core\Exchange\PlanDocument\PlanWriter;
use Plinth\Core\Fitting\Advice;
use Plinth\Core\Fitting\Exception\FittingException;
use Plinth\Core\Fitting\FitStart;
use Plinth\Core\Fitting\Fitter;
use Plinth\Core\Fitting\Model;
use Plinth\Core\Fitting\Offer;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Ink\GreyRaster;
use Plinth\Core\Ink\Skew;
use Plinth\Core\Plan\Derivation;
use Plinth\Core\Plan\Storey;
use Plinth\Core\Site\Exception\UnusableBoundary;
use Plinth\Core\Site\Leg;
use Plinth\Core\Site\Traverse;
use Plinth\Core\Units\Bearing;
use Plinth\Core\Units\Exception\UnreadableBearing;
use Plinth\Core\Units\Exception\UnreadableLength;
use Plinth\Core\Units\LengthParser;
use Plinth\Core\Units\LengthUnit;

/**
 * The core from the command line: JSON in, one JSON document out. Exit 0; 2 for wrong input; 1 for a failure of ours.
 */
final class CommandLine
{
    private const USAGE = <<<'TEXT'
        plinth length TEXT [--unit mm|cm|m|ft|in]
        plinth fit    [--in FILE]                   known lengths, grid lines, control points → the fit
        plinth traverse [--in FILE] [--unit …]     legs of a boundary → misclosure, adjusted corners, area
        plinth derive [--in FILE]                   plan document → outlines, rooms, leaks, areas, findings
        plinth skew IMAGE                           how far a drawing is turned on its page, modulo 90°
        plinth export dxf --out FILE [--in FILE] [--storey ID]
        JSON comes on standard input unless --in names a file. Formats: docs/plan-format.md.

        TEXT;

    /**
     * @param list<string> $arguments without the program's name
     * @param callable(string): ?GreyRaster|null $readGrey decodes a picture file; null where it cannot be read
     *
     * @return array{int, string} exit code and what to print
     */
    public static function run(array $arguments, ?callable $readGrey = null): array
    {
        try {
            [$words, $options] = self::split($arguments);
            $result = match ($words[0] ?? '') {
                'length' => self::length($words, $options),
                'fit' => self::fit($options),
                'skew' => self::skew($words, $readGrey),
                'traverse' => self::traverse($options),
                'derive' => self::derive($options),
                'export' => self::export($words, $options),
                'help', '' => null,
                default => throw WrongUsage::unknownCommand($words[0]),
            };

            return null === $result ? [0, self::USAGE] : [0, self::json($result)];
        } catch (WrongUsage $e) {
            return [2, self::error('usage', $e->getMessage(), $e->at)];
        } catch (UnreadableLength $e) {
            return [2, self::error('unreadable-length', $e->getMessage(), (string) $e->position)];
        } catch (UnreadableDocument $e) {
            return [2, self::error('unreadable-document', $e->getMessage(), $e->at)];
        } catch (UnreadableBearing $e) {
            return [2, self::error('unreadable-bearing', $e->getMessage(), '')];
        } catch (UnusableBoundary $e) {
            return [2, self::error('unusable-boundary', $e->getMessage(), $e->at)];
        } catch (FittingException $e) {
            return [2, self::error($e->reason(), $e->getMessage(), $e->at())];
        } catch (\Throwable $e) {
            return [1, self::error('failure', $e->getMessage(), $e->getFile().':'.$e->getLine())];
        }
    }

    /**
     * @param list<string> $words
     * @param array<string, string> $options
     *
     * @return array<string, mixed>
     */
    private static function length(array $words, array $options): array
    {
        $unit = LengthUnit::tryFrom($options['unit'] ?? 'mm') ?? throw WrongUsage::unknownUnit($options['unit'] ?? '');
        $length = LengthParser::parse(implode(' ', \array_slice($words, 1)), $unit);

        return ['mm' => $length->mm, 'stepMm' => $length->stepMm];
    }

    /**
     * @param array<string, string> $options
     *
     * @return array<string, mixed>
     */
    private static function fit(array $options): array
    {
        [$observations, $frame, $model] = FitReader::read(self::input($options));
        $fit = (new Fitter(($model ?? Model::Similar)->shape()))->fit($observations, $frame, FitStart::unknown());
        $offer = Offer::beyond($fit, $observations, $frame, FitStart::unknown(), Model::Perspective);
        while (null === $model && null !== $offer) {
            $fit = $offer->fit;
            $offer = Offer::beyond($fit, $observations, $frame, FitStart::unknown(), Model::Perspective);
        }

        return FitWriter::document($fit, Advice::on($fit, $observations, $frame), $offer);
    }

    /**
     * @param list<string> $words
     * @param callable(string): ?GreyRaster|null $readGrey
     *
     * @return array<string, mixed>
     */
    private static function skew(array $words, ?callable $readGrey): array
    {
        $file = $words[1] ?? throw WrongUsage::missingOption('IMAGE');
        $raster = null === $readGrey ? null : $readGrey($file);
        if (null === $raster) {
            throw WrongUsage::cannotRead($file);
        }
        $skew = Skew::of($raster);

        return ['degrees' => $skew?->degrees, 'confidence' => $skew->confidence ?? 0.0];
    }

    /**
     * @param array<string, string> $options
     *
     * @return array<string, mixed>
     */
    private static function traverse(array $options): array
    {
        $unit = LengthUnit::tryFrom($options['unit'] ?? 'mm') ?? throw WrongUsage::unknownUnit($options['unit'] ?? '');
        $legs = array_map(
            static fn (JsonValue $leg): Leg => new Leg(Bearing::parse($leg->object(['bearing', 'length'])->get('bearing')->text(40)), LengthParser::parse($leg->get('length')->text(60), $unit)->mm),
            JsonValue::parse(self::input($options))->object(['legs'])->list('legs'),
        );
        $traverse = Traverse::closed($legs);

        return [
            'lengthMm' => $traverse->lengthMm, 'misclosureMm' => $traverse->misclosureMm(), 'precision' => $traverse->precision(), 'areaM2' => $traverse->areaM2(),
            'corners' => array_map(static fn (Point $p): array => $p->toArray(), $traverse->corners),
        ];
    }

    /**
     * @param array<string, string> $options
     *
     * @return array<string, mixed>
     */
    private static function derive(array $options): array
    {
        $plan = PlanReader::read(self::input($options));

        return ['storeys' => array_map(static fn (Storey $s): array => PlanWriter::derived(Derivation::of($s)), $plan->storeys)];
    }

    /**
     * @param list<string> $words
     * @param array<string, string> $options
     *
     * @return array<string, mixed>
     */
    private static function export(array $words, array $options): array
    {
        if ('dxf' !== ($words[1] ?? '')) {
            throw WrongUsage::unknownFormat($words[1] ?? '');
        }
        $out = $options['out'] ?? throw WrongUsage::missingOption('out');
        $plan = PlanReader::read(self::input($options));
        foreach ($plan->storeys as $storey) {
            if (!isset($options['storey']) || $options['storey'] === $storey->id) {
                $dxf = DxfWriter::write($storey, Derivation::of($storey));
                if (false === @file_put_contents($out, $dxf)) {
                    throw WrongUsage::cannotWrite($out);
                }

                return ['file' => $out, 'bytes' => \strlen($dxf), 'storey' => $storey->id, 'walls' => \count($storey->walls)];
            }
        }
        throw WrongUsage::noStorey($options['storey'] ?? '');
    }

    /** @param array<string, string> $options */
    private static function input(array $options): string
    {
        $file = $options['in'] ?? 'php://stdin';
        $text = @file_get_contents($file);

        return false === $text ? throw WrongUsage::cannotRead($file) : $text;
    }

    /**
     * @param list<string> $arguments
     *
     * @return array{list<string>, array<string, string>}
     */
    private static function split(array $arguments): array
    {
        $words = [];
        $options = [];
        for ($i = 0; $i < \count($arguments); ++$i) {
            if (str_starts_with($arguments[$i], '--')) {
                $name = substr($arguments[$i], 2);
                if (!\in_array($name, ['unit', 'in', 'out', 'storey'], true)) {
                    throw WrongUsage::unknownOption($name);
                }
                $options[$name] = $arguments[++$i] ?? throw WrongUsage::missingOption($name);
            } else {
                $words[] = $arguments[$i];
            }
        }

        return [$words, $options];
    }

    private static function error(string $code, string $message, string $at): string
    {
        return self::json(['error' => ['code' => $code, 'message' => $message, 'at' => $at]]);
    }

    /** @param array<string, mixed> $data */
    private static function json(array $data): string
    {
        return json_encode($data, \JSON_UNESCAPED_SLASHES | \JSON_UNESCAPED_UNICODE | \JSON_THROW_ON_ERROR)."\n";
    }
}
