from larch.cli import main

raise SystemExit(main())
