<?php

declare(strict_types=1);

namespace Plinth\Server\Project;

use Plinth\Core\Geometry\Motion;
use Plinth\Server\Change\Base;
use Plinth\Server\Change\Kinds;
use Plinth\Server\Change\ProjectRow;
use Plinth\Server\Change\Refers;
use Plinth\Server\Change\WhenGone;
use Plinth\Server\Change\Workspace;
use Plinth\Server\Http\Refusal;
use Symfony\Component\Uid\Uuid;
use Symfony\Component\Uid\UuidV7;

/**
 * Copies what was drawn on a storey to another one, or moves it there: with what stands on it (openings of walls, corners of outlines,
 * legs of boundaries, figures between walls that both go), and with what it stands on by itself (corners of walls; those that were
 * shared stay shared). It knows none of these by name: rows say of themselves what they refer to.
 */
final readonly class Elsewhere
{
    public function __construct(private Kinds $kinds, private Whole $whole)
    {
    }

    /** @return list<ProjectRow> all that was drawn on a storey and stands on nothing else that was */
    public function drawnOn(Workspace $workspace, Uuid $storey): array
    {
        $rows = [];
        foreach ($this->kinds->classes as $class) {
            $by = is_subclass_of($class, DrawnOnStorey::class) ? self::storeyOf($class) : null;
            array_push($rows, ...null === $by ? [] : $workspace->findBy($class, $by->field, $storey));
        }

        return $rows;
    }

    /**
     * @param list<ProjectRow> $rows
     * @param bool $along whether what stands on them is copied as well
     * @param array{float, float} $by mm
     */
    public function copy(Workspace $workspace, array $rows, Uuid $to, bool $along, array $by, string $at): void
    {
        $copies = [];
        self::requireOnStorey($rows, $at);
        foreach ($this->whole->of($workspace, $rows, $along, $at) as $row) {
            $id = new UuidV7();
            $copies[$row->id()->toRfc4122()] = $id->toRfc4122();
            $moved = [0.0, 0.0] === $by ? [] : $row->movedBy(Motion::shift(...$by));
            $workspace->add($row::class, $id, $moved + self::there($row, $to, $copies) + $row->values(), $at);
        }
    }

    /**
     * What it stands on by itself and something needs that stays is left to that and copied.
     *
     * @param list<ProjectRow> $rows
     */
    public function move(Workspace $workspace, array $rows, Uuid $to, Base $base, string $at): void
    {
        self::requireOnStorey($rows, $at);
        $whole = $this->whole->of($workspace, $rows, true, $at);
        $copies = [];
        foreach ($whole as $row) {
            $values = self::there($row, $to, $copies);
            if ($this->staysBehind($workspace, $row, $whole, $at)) {
                $id = new UuidV7();
                $copies[$row->id()->toRfc4122()] = $id->toRfc4122();
                $workspace->add($row::class, $id, $values + $row->values(), $at);
            } elseif ([] !== array_diff_assoc($values, $row->values())) {
                $workspace->set($workspace->current($row::class, $row->id(), $base, $at), $values, $at);
            }
        }
    }

    /** @param list<ProjectRow> $rows */
    private static function requireOnStorey(array $rows, string $at): void
    {
        foreach ($rows as $row) {
            if (!$row instanceof DrawnOnStorey || null === $row->named(self::storeyOf($row::class) ?? throw new \LogicException('It lies on no storey.'))) {
                throw Refusal::invalid('not-on-storey', \sprintf('%s that lies on no storey cannot go to another one.', ucfirst($row::kind()->one())), $at);
            }
        }
    }

    /**
     * Whether something that does not go needs a row which goes only because others stand on it.
     *
     * @param array<string, ProjectRow> $going
     */
    private function staysBehind(Workspace $workspace, ProjectRow $row, array $going, string $at): bool
    {
        foreach ($this->kinds->referrers($row::class) as [$class, $refers]) {
            foreach ($refers->alone || WhenGone::GoesAlong === $refers->then ? $workspace->findBy($class, $refers->field, $row->id()) : [] as $user) {
                if (isset($going[Workspace::key($class, $user->id())])) {
                    continue;
                }
                if ($refers->alone) {
                    return true;
                }
                throw Refusal::conflict(
                    'stands-on-both',
                    \sprintf('%s stands on this and on something that stays. Let both go, or remove it first.', ucfirst($class::kind()->one())),
                    $at,
                    ['rows' => [$user->describe()]],
                );
            }
        }

        return false;
    }

    /**
     * @param array<string, string> $copies id of a row → id of its copy
     *
     * @return array<string, string|null> what a row names, once it is on the other storey; no third one
     */
    private static function there(ProjectRow $row, Uuid $to, array $copies): array
    {
        $there = [];
        $on = self::storeyOf($row::class);
        foreach ($row::refers() as $by) {
            $named = $row->named($by)?->toRfc4122();
            if (Storey::class === $by->to && null !== $named) {
                $there[$by->field] = $by->field === $on?->field ? $to->toRfc4122() : null;
            } elseif (null !== $named && isset($copies[$named])) {
                $there[$by->field] = $copies[$named];
            }
        }

        return $there;
    }

    /** @param class-string<ProjectRow> $class */
    private static function storeyOf(string $class): ?Refers
    {
        foreach ($class::refers() as $by) {
            if (Storey::class === $by->to) {
                return $by;
            }
        }

        return null;
    }
}
