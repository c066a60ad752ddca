<?php

declare(strict_types=1);

namespace Plinth\Core\Exchange\Dxf\Internal;

/** Reads a file two lines at a time, a code and a value; code 0 begins the next thing. Never holds more than one thing. */
final class GroupReader
{
    /** groups of one thing: a spline or a hatch of a hundred thousand corners */
    private const MOST_GROUPS = 400_000;
    private const LONGEST_LINE = 4096;

    /** @var resource|null */
    private $file;
    private ?string $next = null;

    public function __construct(string $path)
    {
        $file = @fopen($path, 'r');
        $this->file = false === $file ? null : $file;
    }

    /** A polyline comes with its vertices: their groups follow its own. */
    public function entity(): ?Entity
    {
        $entity = $this->one();
        if ('POLYLINE' !== $entity?->kind) {
            return $entity;
        }
        $groups = $entity->groups;
        while ('VERTEX' === $this->next || 'SEQEND' === $this->next) {
            $part = $this->one();
            if (null === $part || 'SEQEND' === $part->kind) {
                break;
            }
            // Marked by a code that no entity has, so that vertices are told from each other.
            $groups[] = [Shapes::VERTEX, ''];
            array_push($groups, ...$part->groups);
            if (\count($groups) > self::MOST_GROUPS) {
                break;
            }
        }

        return new Entity($entity->kind, $groups);
    }

    private function one(): ?Entity
    {
        $kind = $this->next;
        $this->next = null;
        $groups = [];
        while (null !== ($group = $this->group())) {
            if (0 !== $group[0]) {
                if (null !== $kind && \count($groups) < self::MOST_GROUPS) {
                    $groups[] = $group;
                }
                continue;
            }
            if (null !== $kind) {
                $this->next = $group[1];

                return new Entity($kind, $groups);
            }
            $kind = $group[1];
        }

        return null === $kind ? null : new Entity($kind, $groups);
    }

    /** @return array{int, string}|null */
    private function group(): ?array
    {
        if (null === $this->file) {
            return null;
        }
        $code = fgets($this->file, self::LONGEST_LINE);
        $value = fgets($this->file, self::LONGEST_LINE);
        if (false === $code || false === $value) {
            fclose($this->file);
            $this->file = null;

            return null;
        }

        return [(int) trim($code), trim($value)];
    }
}
