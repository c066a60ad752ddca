<?php

declare(strict_types=1);

namespace Plinth\Server\Tests;

use Plinth\Server\Change\Kinds;
use Plinth\Server\Change\RowKinds;

/** What the folders of the server have registered, found as the container finds it. */
final class Registered
{
    public static function kinds(): Kinds
    {
        $registered = [];
        foreach ((array) glob(\dirname(__DIR__).'/src/*/*Rows.php') as $file) {
            $class = 'Plinth\\Server\\'.basename(\dirname((string) $file)).'\\'.basename((string) $file, '.php');
            if (is_subclass_of($class, RowKinds::class)) {
                $registered[] = new $class();
            }
        }

        return new Kinds($registered);
    }
}
