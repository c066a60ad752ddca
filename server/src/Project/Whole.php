<?php

declare(strict_types=1);

namespace Plinth\Server\Project;

use Plinth\Server\Change\Kinds;
use Plinth\Server\Change\ProjectRow;
use Plinth\Server\Change\WhenGone;
use Plinth\Server\Change\Workspace;
use Plinth\Server\Http\Refusal;
use Symfony\Component\Uid\Uuid;

/** What goes along with rows: what stands on them, and what they stand on by themselves; told by what rows refer to alone. */
final readonly class Whole
{
    public function __construct(private Kinds $kinds)
    {
    }

    /**
     * Rows with all that goes along, each after those that it names.
     *
     * @param list<ProjectRow> $rows
     *
     * @return array<string, ProjectRow> by kind and id
     */
    public function of(Workspace $workspace, array $rows, bool $along, string $at): array
    {
        $found = [];
        foreach ($rows as $row) {
            $found[$row::class][$row->id()->toRfc4122()] = $row;
        }
        foreach ($rows as $row) {
            if (!self::standsOnly($row, $found)) {
                throw Refusal::conflict('stands-on-both', \sprintf('%s goes with what it stands on only.', ucfirst($row::kind()->one())), $at);
            }
        }
        // What stands on them first, then what all of it stands on.
        foreach ($along ? $this->kinds->classes : [] as $class) {
            $ids = array_map(static fn (ProjectRow $r): Uuid => $r->id(), array_values($found[$class] ?? []));
            foreach ([] === $ids ? [] : $this->kinds->referrers($class) as [$referrer, $refers]) {
                if (WhenGone::GoesAlong !== $refers->then || Storey::class === $class) {
                    continue;
                }
                $workspace->findAllBy($referrer, $refers->field, $ids);
                foreach ($ids as $id) {
                    foreach ($workspace->findBy($referrer, $refers->field, $id) as $row) {
                        if (self::standsOnly($row, $found)) {
                            $found[$referrer][$row->id()->toRfc4122()] = $row;
                        }
                    }
                }
            }
        }
        foreach (array_reverse($this->kinds->classes) as $class) {
            foreach ($class::refers() as $by) {
                $ids = $by->alone ? array_values(array_filter(array_map(
                    static fn (ProjectRow $r): ?Uuid => $r->named($by),
                    array_values($found[$class] ?? []),
                ))) : [];
                $workspace->readAll($by->to, $ids);
                foreach ($ids as $id) {
                    $found[$by->to][$id->toRfc4122()] = $workspace->get($by->to, $id);
                }
            }
        }
        $whole = [];
        foreach ($this->kinds->classes as $class) {
            foreach ($found[$class] ?? [] as $row) {
                $whole[Workspace::key($class, $row->id())] = $row;
            }
        }

        return $whole;
    }

    /**
     * Whether all that a row would go along with is going.
     *
     * @param array<class-string<ProjectRow>, array<string, ProjectRow>> $going
     */
    private static function standsOnly(ProjectRow $row, array $going): bool
    {
        foreach ($row::refers() as $by) {
            $id = WhenGone::GoesAlong === $by->then && Storey::class !== $by->to ? $row->named($by) : null;
            if (null !== $id && !isset($going[$by->to][$id->toRfc4122()])) {
                return false;
            }
        }

        return true;
    }
}
