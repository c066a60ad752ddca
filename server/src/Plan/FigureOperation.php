<?php

declare(strict_types=1);

namespace Plinth\Server\Plan;

use Plinth\Core\Exchange\Json\JsonValue;
use Plinth\Core\Plan\Editing\Exception\UnusableEdit;
use Plinth\Core\Plan\Editing\Shift;
use Plinth\Core\Plan\Model\Line;
use Plinth\Core\Units\Exception\UnitsException;
use Plinth\Core\Units\LengthParser;
use Plinth\Core\Units\LengthUnit;
use Plinth\Server\Change\Base;
use Plinth\Server\Change\Operation;
use Plinth\Server\Change\RowValues;
use Plinth\Server\Change\Workspace;
use Plinth\Server\Http\Refusal;

/**
 * States a figure between faces of two walls, along one, or of an opening's width, or decides about one: the wall that is not held is
 * moved, its end or the jambs are, until what was decided holds, be it the figure, the size measured on site or the ink.
 */
final readonly class FigureOperation implements Operation
{
    public static function name(): string
    {
        return 'figure';
    }

    public function apply(Workspace $workspace, JsonValue $figure, Base $base): void
    {
        $figure->object(['id', 'drawing', 'a', 'aSide', 'b', 'bSide', 'opening', 'text', 'unit', 'siteText', 'decided', 'reason', 'moves']);
        $id = RowValues::uuid($figure->get('id'));
        $row = null === $workspace->find(Figure::class, $id) ? null : $workspace->current(Figure::class, $id, $base, $figure->at);
        $known = $row?->values() ?? [];
        $text = static fn (string $key, string $otherwise): string => $figure->optional($key)?->text(400)
            ?? (\is_string($known[$key] ?? null) ? $known[$key] : $otherwise);
        $opening = $this->opening($workspace, $figure, $known, $base);
        if (null === $opening) {
            $a = $this->wall($workspace, $figure, 'a', $known, $base);
            $b = $this->wall($workspace, $figure, 'b', $known, $base);
            $aSide = Line::tryFrom($text('aSide', '')) ?? $figure->get('aSide')->choice(Line::class);
            $bSide = Line::tryFrom($text('bSide', '')) ?? $figure->get('bSide')->choice(Line::class);
        } else {
            $a = $b = $workspace->current(Wall::class, $opening->wall(), $base, $figure->at.'/opening');
            $aSide = $bSide = Line::Centre;
        }
        $decided = Decided::tryFrom($text('decided', Decided::Figure->value)) ?? $figure->get('decided')->choice(Decided::class);
        $unit = $figure->optional('unit')?->choice(LengthUnit::class) ?? LengthUnit::Millimetre;
        $mm = null === $figure->optional('text') ? (float) ($known['mm'] ?? 0.0) : self::read($figure->get('text'), $unit);
        $siteText = $text('siteText', '');
        $siteMm = null === $figure->optional('siteText') || '' === $siteText ? (
            '' === $siteText ? null : $known['siteMm']
            ?? null
        ) : self::read($figure->get('siteText'), $unit);
        if (Decided::Site === $decided && null === $siteMm) {
            throw Refusal::invalid('no-site-size', 'Nothing was measured on site yet: type the size first.', $figure->at.'/siteText');
        }
        if ($a->storey()->toRfc4122() !== $b->storey()->toRfc4122()) {
            throw Refusal::invalid('two-storeys', 'A figure runs between walls of one storey.', $figure->at.'/b');
        }
        try {
            $isAlong = null === $opening && $a->id()->equals($b->id());
            $now = $opening?->width() ?? ($isAlong
                ? StoreyWalls::core($workspace, $a)->length()
                : Shift::distance(StoreyWalls::core($workspace, $a), $aSide, StoreyWalls::core($workspace, $b), $bSide));
            $values = [
                'storey' => $a->storey()->toRfc4122(), 'drawing' => $figure->optional('drawing')?->text() ?? $known['drawing'] ?? null,
                'a' => $a->id()->toRfc4122(), 'aSide' => $aSide->value, 'b' => $b->id()->toRfc4122(), 'bSide' => $bSide->value,
                'opening' => $opening?->id()->toRfc4122(),
                'text' => $text('text', ''), 'mm' => $mm, 'tracedMm' => $known['tracedMm'] ?? $now, 'siteText' => $siteText, 'siteMm' => $siteMm,
                'decided' => $decided->value, 'reason' => $text('reason', ''),
            ];
            if (null === $row) {
                $workspace->add(Figure::class, $id, $values, $figure->at);
            } else {
                $workspace->set($row, $values, $figure->at);
            }
            $wanted = match ($decided) {
                Decided::Open => null,
                Decided::Figure => $mm,
                Decided::Ink => (float) $values['tracedMm'],
                Decided::Site => (float) $siteMm,
            };
            if (null === $wanted || abs($wanted - $now) < 1e-6) {
                return;
            }
            if (null !== $opening) {
                // Its middle stays.
                $workspace->set($opening, ['width' => $wanted, 'offset' => $opening->offset() + ($now - $wanted) / 2.0], $figure->at);

                return;
            }
            $aMoves = 'a' === ($figure->optional('moves')?->word(['a', 'b']) ?? 'b');
            if ($isAlong) {
                StoreyWalls::lengthen($workspace, $a, $wanted, !$aMoves, $base, $figure->at);

                return;
            }
            $moves = $aMoves ? $a : $b;
            StoreyWalls::carry(
                $workspace,
                StoreyWalls::round($workspace, [$a, $b])->apart(
                    $a->id()->toBinary(),
                    $aSide,
                    $b->id()->toBinary(),
                    $bSide,
                    $wanted,
                    $moves->id()->toBinary(),
                ),
                $base,
                $figure->at,
            );
            $workspace->set(
                $moves,
                ['evidence' => Decided::Ink === $decided ? Evidence::Ink->value : Evidence::Figure->value],
                $figure->at,
            );
        } catch (UnusableEdit $e) {
            throw Refusal::invalid($e->why(), $e->getMessage(), $figure->at);
        }
    }

    /** @param array<string, scalar|null> $known */
    private function opening(Workspace $workspace, JsonValue $figure, array $known, Base $base): ?Opening
    {
        $id = $figure->optional('opening') ?? (isset($known['opening']) ? JsonValue::of($known['opening'], $figure->at.'/opening') : null);

        return null === $id ? null : $workspace->current(Opening::class, RowValues::uuid($id), $base, $figure->at.'/opening');
    }

    /** @param array<string, scalar|null> $known */
    private function wall(Workspace $workspace, JsonValue $figure, string $key, array $known, Base $base): Wall
    {
        $id = null === $figure->optional($key) && isset($known[$key]) ? RowValues::uuid(JsonValue::of(
            $known[$key],
            $figure->at.'/'.$key,
        )) : RowValues::uuid($figure->get($key));
        $wall = $workspace->current(Wall::class, $id, $base, $figure->at.'/'.$key);

        return $wall;
    }

    private static function read(JsonValue $text, LengthUnit $unit): float
    {
        try {
            $mm = LengthParser::parse($text->text(60), $unit)->mm;
        } catch (UnitsException $e) {
            throw Refusal::invalid('unreadable-length', $e->getMessage(), $text->at);
        }

        return $mm > 0.0 ? $mm : throw Refusal::invalid('no-length', 'A figure must be longer than zero.', $text->at);
    }
}
