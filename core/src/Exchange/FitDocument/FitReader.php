<?php

declare(strict_types=1);

namespace Plinth\Core\Exchange\FitDocument;

use Plinth\Core\Exchange\Exception\UnreadableDocument;
use Plinth\Core\Exchange\Json\JsonValue;
use Plinth\Core\Fitting\Along;
use Plinth\Core\Fitting\ControlPoint;
use Plinth\Core\Fitting\GridPick;
use Plinth\Core\Fitting\KnownLength;
use Plinth\Core\Fitting\Model;
use Plinth\Core\Fitting\Observations;
use Plinth\Core\Fitting\PageFrame;
use Plinth\Core\Fitting\Pick;
use Plinth\Core\Fitting\Rectangle;
use Plinth\Core\Fitting\StatedScale;
use Plinth\Core\Geometry\PixelPoint;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Units\Exception\UnreadableLength;
use Plinth\Core\Units\LengthParser;

/**
 * Reads the statements of a fit from JSON. Ends at the very same pixel are one pick; of the standard deviations stated
 * for it the smallest counts.
 *
 * A figure given as a bare number, with neither text nor standard deviation, was rounded too: to the coarsest usual step
 * that all such figures share. Fewer than three may share one by chance, so a centimetre is the most that is believed then.
 */
final class FitReader
{
    public const DEFAULT_SIGMA_PX = 0.5;

    /** Usual roundings of figures, coarsest first, mm. */
    private const STEPS = [304.8, 100.0, 50.0, 25.4, 25.0, 12.7, 10.0, 6.35, 5.0, 1.0];
    private const MOST_BY_CHANCE_MM = 10.0;

    /** @var array<string, Pick> */
    private array $picks = [];
    private float $sharedStepMm = 0.0;

    private function __construct(private readonly JsonValue $document)
    {
    }

    /**
     * @return array{Observations, PageFrame, Model|null} null for the simplest model that nothing contradicts
     *
     * @throws UnreadableDocument
     */
    public static function read(string $json): array
    {
        return (new self(
            JsonValue::parse($json)->object(['size', 'model', 'lengths', 'grid', 'points', 'rectangles', 'scale']),
        ))->statements();
    }

    /** @return array{Observations, PageFrame, Model|null} */
    private function statements(): array
    {
        [$width, $height] = $this->document->get('size')->pair();
        if ($width <= 0.0 || $height <= 0.0) {
            throw UnreadableDocument::outOfRange('size', 'two numbers of pixels above zero');
        }
        $model = $this->document->optional('model')?->word(['similar', 'stretched', 'sheared', 'perspective', 'auto']) ?? 'similar';
        $this->sharedStepMm = $this->sharedStep();
        $lengths = [];
        foreach ($this->document->list('lengths') as $i => $entry) {
            $lengths[] = $this->length($entry, 'length-'.$i);
        }
        $grid = [];
        foreach ($this->document->list('grid') as $i => $entry) {
            $entry->object(['a', 'b', 'axis', 'bearing', 'sigmaPx']);
            $bearing = $entry->optional('bearing');
            $grid[] = new GridPick(
                'grid-'.$i,
                $this->pick($entry, 'a'),
                $this->pick($entry, 'b'),
                null !== $bearing
                    ? GridPick::directionOfBearing($bearing->number())
                    : ('x' === $entry->get('axis')->word(['x', 'y']) ? 0.0 : \M_PI_2),
            );
        }
        $points = [];
        foreach ($this->document->list('points') as $i => $entry) {
            $entry->object(['px', 'mm', 'sigmaPx']);
            $points[] = new ControlPoint('point-'.$i, $this->pick($entry, 'px'), new Point(...$entry->get('mm')->pair()));
        }

        $rectangles = [];
        foreach ($this->document->list('rectangles') as $i => $entry) {
            $entry->object(['corners', 'width', 'depth', 'sigmaPx', 'sigmaMm']);
            $corners = array_map(fn (JsonValue $corner): string => $this->pickAt($corner, $entry), $entry->list('corners'));
            $rectangles[] = new Rectangle(
                'rectangle-'.$i,
                $corners,
                $entry->get('width')->positive(),
                $entry->get('depth')->positive(),
                $entry->optional('sigmaMm')?->notNegative() ?? 0.0,
            );
        }
        $stated = $this->document->optional('scale')?->object(['mmPerPixel', 'sigmaPart']);
        $scale = null === $stated ? null : new StatedScale(
            $stated->get('mmPerPixel')->positive(),
            $stated->optional('sigmaPart')?->positive() ?? StatedScale::SIGMA_PART,
        );

        return [
            new Observations(array_values($this->picks), $lengths, $grid, $points, $rectangles, $scale),
            new PageFrame($width, $height),
            Model::tryFrom($model),
        ];
    }

    private function length(JsonValue $entry, string $id): KnownLength
    {
        $entry->object(['a', 'b', 'c', 'mm', 'text', 'along', 'sigmaPx', 'sigmaMm', 'check', 'allowanceMm']);
        $text = $entry->optional('text');
        $figure = null;
        if (null !== $text) {
            try {
                $figure = LengthParser::parse($text->text());
            } catch (UnreadableLength $e) {
                throw UnreadableDocument::outOfRange($text->at, 'a length ('.$e->getMessage().')');
            }
        }
        $mm = $entry->optional('mm')?->number() ?? $figure->mm ?? throw UnreadableDocument::missingKey($entry->at.'/mm');

        return new KnownLength(
            $id,
            $this->pick($entry, 'a'),
            $this->pick($entry, 'b'),
            $mm,
            $entry->optional('sigmaMm')?->notNegative() ?? $figure?->roundingSigmaMm() ?? $this->sharedStepMm / sqrt(12.0),
            Along::from($entry->optional('along')?->word(['x', 'y', 'straight', 'across']) ?? 'straight'),
            $entry->optional('check')?->boolean() ?? false,
            null === $entry->optional('c') ? null : $this->pick($entry, 'c'),
            $entry->optional('allowanceMm')?->number() ?? 0.0,
        );
    }

    /** @return float mm; 0 when the bare figures share no usual step */
    private function sharedStep(): float
    {
        $bare = [];
        foreach ($this->document->list('lengths') as $entry) {
            if (null === $entry->optional('text') && null === $entry->optional('sigmaMm')) {
                $bare[] = $entry->get('mm')->number();
            }
        }
        foreach ([] === $bare ? [] : self::STEPS as $step) {
            if (\count($bare) < 3 && $step > self::MOST_BY_CHANCE_MM) {
                continue;
            }
            if ([] === array_filter($bare, static fn (float $mm): bool => abs($mm / $step - round($mm / $step)) > 1e-7)) {
                return $step;
            }
        }

        return 0.0;
    }

    private function pick(JsonValue $entry, string $key): string
    {
        return $this->pickAt($entry->get($key), $entry);
    }

    private function pickAt(JsonValue $place, JsonValue $entry): string
    {
        [$x, $y] = $place->pair();
        $sigma = $entry->optional('sigmaPx')?->positive() ?? self::DEFAULT_SIGMA_PX;
        $id = \sprintf('%.9g/%.9g', $x, $y);
        $known = $this->picks[$id] ?? null;
        if (null === $known || $sigma < $known->sigmaPx) {
            $this->picks[$id] = new Pick($id, new PixelPoint($x, $y), $sigma);
        }

        return $id;
    }
}
