<?php

declare(strict_types=1);

namespace Plinth\Server\Plan;

use Doctrine\DBAL\Connection;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Plan\Model\Figure;
use Plinth\Core\Plan\Model\JoinedWall;
use Plinth\Core\Plan\Model\Line;
use Plinth\Core\Plan\Model\Wall as CoreWall;
use Plinth\Core\Plan\Settling\Settle;
use Plinth\Core\Plan\Settling\Settled;
use Plinth\Core\Units\Exception\UnitsException;
use Plinth\Core\Units\LengthParser;
use Plinth\Core\Units\LengthUnit;
use Plinth\Server\Change\Raw;
use Plinth\Server\Change\RowId;

/** Reads a storey from the database as settling wants it: walls with their nodes, what they rest on, and the decided figures. */
final class SettlesStoreys
{
    /** how far a wall may be off by what it rests on, standard deviation, mm */
    private const SIGMAS = ['figure' => 2.0, 'ink' => 6.0, 'free hand' => 40.0];

    public static function settled(Connection $connection, RowId $storey): Settled
    {
        [$walls, $nodes, $sigmas] = self::walls($connection, $storey);

        return Settle::storey($walls, $nodes, $sigmas, self::figures($connection, $storey));
    }

    /**
     * Walls and nodes go by their ids as text.
     *
     * @return array{list<JoinedWall>, array<string, Point>, array<string, float>}
     */
    public static function walls(Connection $connection, RowId $storey): array
    {
        [$walls, $nodes, $sigmas] = [[], [], []];
        $rows = $connection->iterateNumeric(
            'SELECT w.id, w.from_node, f.x, f.y, w.to_node, t.x, t.y, w.thickness, w.rise, w.evidence FROM wall w JOIN node f ON f.project = w.project AND f.id = w.from_node JOIN node t ON t.project = w.project AND t.id = w.to_node WHERE w.project = ? AND w.storey = ? ORDER BY w.id',
            $storey->binary(),
        );
        foreach ($rows as [$id, $from, $x1, $y1, $to, $x2, $y2, $thickness, $rise, $evidence]) {
            [$id, $from, $to] = [Raw::id($id), Raw::id($from), Raw::id($to)];
            $nodes[$from] ??= new Point(Raw::number($x1), Raw::number($y1));
            $nodes[$to] ??= new Point(Raw::number($x2), Raw::number($y2));
            $walls[] = new JoinedWall(
                new CoreWall($id, $nodes[$from], $nodes[$to], Raw::number($thickness), rise: Raw::number($rise)),
                $from,
                $to,
            );
            foreach ([$from, $to] as $node) {
                $sigmas[$node] = min($sigmas[$node] ?? \INF, self::SIGMAS[Raw::text($evidence)] ?? self::SIGMAS['ink']);
            }
        }

        return [$walls, $nodes, $sigmas];
    }

    /** @return list<Figure> between faces, that were decided */
    public static function figures(Connection $connection, RowId $storey): array
    {
        $unit = LengthUnit::tryFrom(
            Raw::text(
                $connection->fetchOne(
                    'SELECT unit FROM project WHERE project = ? AND id = ?',
                    (new RowId($storey->project, $storey->project))->binary(),
                ),
            ),
        ) ?? LengthUnit::Millimetre;
        $figures = [];
        foreach ($connection->iterateNumeric(
            'SELECT id, a, a_side, b, b_side, text, mm, traced_mm, site_mm, decided FROM figure WHERE project = ? AND storey = ? AND a <> b ORDER BY id',
            $storey->binary(),
        ) as [$id, $a, $aSide, $b, $bSide, $text, $mm, $traced, $site, $decided]) {
            $wanted = match (Decided::from(Raw::text($decided))) {
                Decided::Open => null,
                Decided::Figure => Raw::number($mm),
                Decided::Ink => Raw::optional($traced),
                Decided::Site => Raw::optional($site),
            };
            if (null !== $wanted && $wanted > 0.0) {
                $figures[] = new Figure(
                    Raw::id($id),
                    Raw::id($a),
                    Line::from(Raw::text($aSide)),
                    Raw::id($b),
                    Line::from(Raw::text($bSide)),
                    $wanted,
                    self::tolerance(Raw::text($text), $unit),
                );
            }
        }

        return $figures;
    }

    /** Half the last place of a figure as written. */
    private static function tolerance(string $text, LengthUnit $unit): float
    {
        try {
            return LengthParser::parse($text, $unit)->stepMm / 2.0;
        } catch (UnitsException) {
            return 0.5;
        }
    }
}
