"""The day: several counts, each in its way, so that all are ready when they must be. Products are cut into blocks that hang together and gaps
that give (`blocks`), laid on a grid of time (`problem`), placed one by one (`placing`), made better (`solving`), and told (`timetable`, `why`,
`reliefs`, `lists`).
"""
